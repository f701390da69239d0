import { parseBody, parseId, writes } from '@/app/api/_handle/handle';
import { RetireSchema } from '@/contracts/account';
import { retirePerson } from '@/server/use-cases/account/people';

export const PUT = writes(async ({ deps, slug, personId, params, request }) => {
  const { isRetired } = await parseBody(request, RetireSchema);
  return retirePerson(deps, slug, personId, { person: parseId(params.person), isRetired });
});
