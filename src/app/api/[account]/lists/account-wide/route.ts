import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/account-wide', ({ ask, slug }) => ask('viewAccountWide', slug));
