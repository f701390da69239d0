import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET standing', ({ ask, slug, query }) => ask('viewStanding', slug, query));
