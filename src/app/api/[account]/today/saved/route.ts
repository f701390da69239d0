import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET today/saved', ({ ask, slug }) => ask('viewSavedOfToday', slug));
