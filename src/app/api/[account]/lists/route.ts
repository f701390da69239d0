import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists', ({ ask, slug }) => ask('viewLists', slug));
