import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET open', ({ ask, slug }) => ask('countOpen', slug));
