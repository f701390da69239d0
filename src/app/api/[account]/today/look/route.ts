import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST today/look', ({ ask, slug, personId }) => ask('lookAtToday', slug, personId));
