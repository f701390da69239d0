import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET today', ({ ask, slug, query }) => ask('viewToday', slug, query.days));
