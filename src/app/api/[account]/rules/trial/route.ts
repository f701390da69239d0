import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST rules/trial', ({ ask, slug, body }) => ask('tryRule', slug, body));
