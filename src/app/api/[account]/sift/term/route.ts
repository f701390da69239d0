import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/term', ({ ask, slug, query }) => ask('viewTerm', slug, query));
