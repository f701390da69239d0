import { foldPlacements, productCodeTest, readNegativeLines, readPlacementLines, counted } from '@/core';
import type { Open } from '../../open-workbench';
import { requireList } from '../known-lists';
import { adds, distinct, placeOf, removes, targetOf, type EditOf, type Planned } from './planned';

export function pasteNegatives(open: Open, { into, text, match }: EditOf<'paste'>): Planned {
  const { account, draft } = open;
  const { id, name, makes } = targetOf(open, into, 'words');
  const { entries, refused, twice } = readNegativeLines(text, {
    match: match ?? account.defaultMatch,
    limits: account.limits,
    isProductCode: productCodeTest(account.productCodePattern),
  });
  const news = entries.filter((entry) => !draft.gate.holds(entry, placeOf(id)));
  return {
    said: `Put ${counted(news.length, 'entry', 'entries')} into ${name}`,
    changes: [...makes, ...adds(id, news)],
    ...{ why: 'pasted', refused, twice: twice.length, already: entries.length - news.length, about: id },
  };
}

export function pastePlacements(open: Open, { into, text }: EditOf<'paste'>): Planned {
  const { id, name, makes } = targetOf(open, into, 'placements');
  const { addresses, folded, refused, twice } = readPlacementLines(text);
  const there = open.draft.gate.placementsIn(id);
  const known = new Set(there);
  // What stands there already may shut out a new one, and a new one what stands there.
  const all = foldPlacements([...there, ...addresses]);
  const stays = new Set(all.addresses);
  const news = addresses.filter((address) => !known.has(address) && stays.has(address));
  return {
    said: `Put ${counted(news.length, 'placement')} into ${name}`,
    changes: [
      ...makes,
      ...news.map((address) => ({ kind: 'add placement' as const, address, listId: id })),
      ...there
        .filter((address) => !stays.has(address))
        .map((address) => ({ kind: 'remove placement' as const, address, listId: id })),
    ],
    ...{ why: 'pasted', refused, twice, already: addresses.filter((address) => known.has(address)).length },
    about: id,
    folded: [...folded, ...all.folded],
  };
}

export function move(open: Open, { list, into, entries, keep }: EditOf<'move'>): Planned {
  const from = requireList(open, list);
  const { id, name, makes } = targetOf(open, into, 'words');
  const news = entries.filter((entry) => !open.draft.gate.holds(entry, placeOf(id)));
  return {
    said: `${keep ? 'Copy' : 'Move'} ${counted(entries.length, 'entry', 'entries')} from ${from.name} to ${name}`,
    changes: [...makes, ...adds(id, news), ...(keep ? [] : removes(list, entries))],
    ...{
      why: `${keep ? 'copied' : 'moved'} from ${from.name} to ${name}`,
      already: entries.length - news.length,
    },
  };
}

export function changeMatch(open: Open, { list, entries, match }: EditOf<'match'>): Planned {
  const { name } = requireList(open, list);
  const others = entries.filter((entry) => entry.match !== match);
  const wanted = others.map(({ text }) => ({ text, match }));
  const news = wanted.filter((entry) => !open.draft.gate.holds(entry, placeOf(list)));
  return {
    said: `Make ${counted(others.length, 'entry', 'entries')} of ${name} ${match}`,
    changes: [...adds(list, distinct(news)), ...removes(list, others)],
    ...{ why: `match type changed to ${match}`, already: entries.length - others.length },
  };
}
