import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST sift/batch', ({ ask, slug, body }) => ask('weighBatch', slug, body));
