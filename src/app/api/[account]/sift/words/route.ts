import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/words', ({ ask, slug, query }) => ask('listWords', slug, query));
