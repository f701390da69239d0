import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/health', ({ ask, slug }) => ask('viewListsHealth', slug));
