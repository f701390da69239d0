import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/keywords', ({ ask, slug, query }) => ask('viewKeywords', slug, query));
