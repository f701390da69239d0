import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/cell/before', ({ ask, slug, query }) =>
  ask('viewCellBefore', slug, query.list, query.campaign),
);
