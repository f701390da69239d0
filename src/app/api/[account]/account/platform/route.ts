import { serve } from '@/app/api/_handle/handle';
import { listPlatformAccounts } from '@/server/use-cases/account/connection';
import { requireAccount } from '@/server/use-cases/open-workbench';

export const GET = serve('GET account/platform', async ({ deps, slug }) => {
  await requireAccount(deps, slug);
  return listPlatformAccounts(deps);
});
