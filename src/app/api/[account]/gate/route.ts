import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET gate', ({ ask, slug, query }) => ask('checkGate', slug, query.query));
