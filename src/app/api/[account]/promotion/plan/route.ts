import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST promotion/plan', ({ ask, slug, body }) => ask('planPromotions', slug, body));
