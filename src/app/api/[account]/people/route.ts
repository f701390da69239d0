import { parseBody, writes } from '@/app/api/_handle/handle';
import { PersonSchema } from '@/contracts/account';
import { addPerson } from '@/server/use-cases/account/people';

export const POST = writes(async ({ deps, slug, personId, request }) =>
  addPerson(deps, slug, personId, (await parseBody(request, PersonSchema)).name),
);
