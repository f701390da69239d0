import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/unseen', ({ ask, slug, query }) => ask('findUnseen', slug, query));
