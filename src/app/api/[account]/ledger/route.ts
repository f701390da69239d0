import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET ledger', ({ ask, slug, query }) => ask('viewLedger', slug, query));
