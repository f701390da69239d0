import { parseBody, writes } from '@/app/api/_handle/handle';
import { RetireSchema } from '@/contracts/account';
import { retireAccount } from '@/server/use-cases/account/change-settings';

export const PUT = writes(async ({ deps, slug, personId, request }) =>
  retireAccount(deps, slug, personId, (await parseBody(request, RetireSchema)).isRetired),
);
