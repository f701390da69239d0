import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/needless', ({ ask, slug, query }) => ask('viewNeedless', slug, query));
