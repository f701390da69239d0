import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/[list]/themes', ({ ask, slug, params }) =>
  ask('viewThemesOfList', slug, params.list ?? ''),
);
