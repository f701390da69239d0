import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle', ({ ask, slug, query }) => ask('viewConflicts', slug, query));
