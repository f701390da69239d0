import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/pull', ({ ask, slug, query }) => ask('pullOut', slug, query));
