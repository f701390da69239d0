import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET today/regrets', ({ ask, slug }) => ask('viewRegrets', slug));
