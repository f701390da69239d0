import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET promotion', ({ ask, slug, query }) => ask('viewPromotions', slug, query));
