import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/pass', ({ ask, slug, query }) => ask('viewPass', slug, query));
