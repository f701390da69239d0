import { format } from 'date-fns';
import { createDeps } from '@/server/container';
import { addPeople } from '@/server/use-cases/set-up';
import { listAccountsAndPeople } from '@/server/use-cases/account/describe-account';
import { makeLinkOf } from '@/server/use-cases/sign-in/links';
import { Remedy } from './say';
import { environmentOf, type Settings } from './settings';

/**
 * Prints a link by which a person sets address and password: whoever can run this has the data anyway. Where nobody is
 * known yet, the person becomes the first one.
 * @throws Remedy when nobody has the name
 */
export async function printLink(settings: Settings, name: string): Promise<void> {
  Object.assign(process.env, environmentOf(settings));
  const deps = createDeps();
  try {
    if ((await listAccountsAndPeople(deps)).people.length === 0) await addPeople(deps, [name.trim()]);
    const { people } = await listAccountsAndPeople(deps);
    const person = people.find((one) => one.name.toLowerCase() === name.trim().toLowerCase());
    if (!person)
      throw new Remedy(
        `Nobody is called “${name}” here. There are: ${people.map((one) => one.name).join(', ')}.`,
      );
    const { token, endsAt } = await makeLinkOf(deps, person.id, null);
    console.log(`For ${person.name}, once, until ${format(endsAt, 'd MMM, HH:mm')}:`);
    console.log(`http://${settings.host}:${settings.webPort}/sign-in/link#${token}`);
  } finally {
    await deps.db.destroy();
  }
}
