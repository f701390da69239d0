import { parseBody, reads } from '@/app/api/_handle/handle';
import { NewAccountSchema } from '@/contracts/account';
import { addAccount } from '@/server/use-cases/account/add-account';

export const POST = reads(async ({ deps, request }) =>
  addAccount(deps, await parseBody(request, NewAccountSchema)),
);
