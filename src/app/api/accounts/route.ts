import { findPerson, parseBody, reads } from '@/app/api/_handle/handle';
import { NewAccountSchema } from '@/contracts/account';
import { addAccount } from '@/server/use-cases/account/add-account';

/** Adds an account, in the name of the person chosen in the top strip, or of the first one, whom it names. */
export const POST = reads(async ({ deps, request }) =>
  addAccount(deps, await parseBody(request, NewAccountSchema), await findPerson(deps)),
);
