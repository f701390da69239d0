import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/misspelt', ({ ask, slug, query }) => ask('viewMisspelt', slug, query));
