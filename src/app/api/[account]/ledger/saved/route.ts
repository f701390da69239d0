import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET ledger/saved', ({ ask, slug }) => ask('viewSavedSoFar', slug));
