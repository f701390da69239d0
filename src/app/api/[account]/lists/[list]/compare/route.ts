import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/[list]/compare', ({ ask, slug, params, query }) =>
  ask('compareLists', slug, params.list ?? '', query.with),
);
