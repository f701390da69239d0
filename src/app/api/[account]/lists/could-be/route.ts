import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/could-be', ({ ask, slug }) => ask('viewCouldBe', slug));
