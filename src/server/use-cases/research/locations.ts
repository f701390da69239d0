import type * as v from 'valibot';
import { normalise } from '@/core';
import type { LocationsView, NameKind, SayLocationSchema } from '@/contracts/locations';
import { isLocationName, locationNamer } from '../../compute/locations/name-locations';
import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { setLocationWord } from '../../repositories/decisions/location-words';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { lookAt } from './look-at';

const EVERYTHING = { searches: 0, typed: '', holds: 'none' } as const;

/**
 * The locations that are served, and those that open ideas of a sheet name without being served (rules 16.7).
 * @throws Refusal when there is no such sheet
 */
export async function viewLocations(deps: Deps, slug: string, sheetId: number): Promise<LocationsView> {
  const { open, content, isShown } = await lookAt(deps, slug, sheetId, EVERYTHING, ['open']);
  const { saidOfLocations: said } = open;
  const nameIn = locationNamer(said);
  const found = new Map<string, { kind: NameKind; ideas: number }>();
  for (const [i, { key }] of content.ideas.entries()) {
    if (isShown[i] === 0) continue;
    const runs = nameIn(key);
    for (const name of new Set(runs.map((run) => run.name))) {
      const { kind } = runs.find((run) => run.name === name)!;
      found.set(name, { kind, ideas: (found.get(name)?.ideas ?? 0) + 1 });
    }
  }
  return {
    ...{ served: [...said.served], none: [...said.none] },
    named: [...found]
      .map(([name, { kind, ideas }]) => ({ name, kind, ideas }))
      .sort((a, b) => b.ideas - a.ideas || (a.name < b.name ? -1 : 1)),
  };
}

/**
 * Says that a location is served, or that its name is an ordinary word in this account, or takes that back.
 * @throws Refusal when nothing is known by this name; nothing was changed then
 */
export async function sayLocation(
  deps: Deps,
  slug: string,
  personId: number,
  { text, said }: v.InferOutput<typeof SayLocationSchema>,
): Promise<{ text: string; was: 'served' | 'no location' | null }> {
  const { id } = await requireAccount(deps, slug);
  const name = normalise(text);
  if (said === 'served' && !isLocationName(name))
    throw new Refusal(
      `No country, region or larger city is known as “${text}”. Write it as it stands on a map, or name the country. Nothing was changed.`,
    );
  return deps.db.transaction(async (trx) => {
    const was = await setLocationWord(trx, id, personId, name, said);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'tag' },
      what:
        said === 'served'
          ? `Serve ${name}`
          : said === null
            ? `Take back what was said of the location ${name}`
            : `Take “${name}” for no location here`,
    });
    await raiseDecisionVersion(trx, id);
    return { text: name, was };
  });
}
