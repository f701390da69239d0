import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/beside', ({ ask, slug, query }) => ask('viewListsBeside', slug, query));
