import { parseId, reads } from '@/app/api/_handle/handle';
import { viewLedger } from '@/server/use-cases/view-ledger';

export const GET = reads(({ deps, slug, url }) => {
  const before = url.searchParams.get('before');
  return viewLedger(deps, slug, before === null ? undefined : parseId(before));
});
