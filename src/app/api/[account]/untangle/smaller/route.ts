import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET untangle/smaller', ({ ask, slug }) => ask('viewSmallerSets', slug));
