import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/plot', ({ ask, slug, query }) => ask('plotView', slug, query));
