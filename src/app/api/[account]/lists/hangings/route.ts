import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST lists/hangings', ({ ask, slug, body }) => ask('weighHangings', slug, body));
