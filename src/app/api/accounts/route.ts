import { parseBody, reads } from '@/app/api/_handle/handle';
import { NewAccountSchema, toNewAccount } from '@/contracts/account';
import { addAccount } from '@/server/use-cases/set-up';

export const POST = reads(async ({ deps, request }) => {
  const input = await parseBody(request, NewAccountSchema);
  const account = toNewAccount(input);
  await addAccount(deps, account, input.person);
  return { slug: account.slug };
});
