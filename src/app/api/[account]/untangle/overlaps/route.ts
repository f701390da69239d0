import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/overlaps', ({ ask, slug, query }) => ask('viewOverlaps', slug, query));
