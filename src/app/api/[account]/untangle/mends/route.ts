import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/mends', ({ ask, slug, query }) => ask('viewMends', slug, query));
