import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST lists/plan', ({ ask, slug, body }) => ask('previewEdit', slug, body.edit));
