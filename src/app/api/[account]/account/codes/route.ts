import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET account/codes', ({ ask, slug, query }) =>
  ask('findCodes', slug, query.pattern),
);
