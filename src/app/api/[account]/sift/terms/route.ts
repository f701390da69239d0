import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/terms', ({ ask, slug, query }) => ask('listTerms', slug, query));
