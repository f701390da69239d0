import { counted, listed, type Change, type EntryTerm, type LeakCause, type PlacedNegative } from '@/core';
import type { Leak } from '@/contracts/lanes';
import { lacking } from '../../compute/lanes/lanes-ground';
import type { LanesInUse } from '../../compute/lanes/lanes-in-use';
import type { Open } from '../open-workbench';

/** What a leak comes from, in words, and what mends it. */
export type SaidLeak = Pick<Leak, 'because' | 'mends' | 'entryTerm' | 'noMend'>;

const NOTHING: Omit<SaidLeak, 'because'> = { mends: [], entryTerm: null, noMend: null };

/**
 * Says of a leak what it comes from and what mends it (rules 10).
 * @param own the tier of the plan
 */
export function sayLeak(
  open: Open,
  { tiers, by }: LanesInUse,
  cause: LeakCause,
  {
    own,
    negatives,
    dryDays,
    isTaken,
  }: {
    own: number;
    negatives: ReadonlyMap<string, PlacedNegative>;
    /** of a tier */
    dryDays: (tier: number) => readonly string[];
    /** the tier of the plan lets the query in, and serves */
    isTaken: boolean;
  },
): SaidLeak {
  const nameOf = (tier: number) => tiers[tier]!.name;
  switch (cause.cause) {
    case 'negative missing':
      return {
        ...NOTHING,
        because: `“${cause.entryTerm.text}” is no negative in ${listed(cause.tiers.map(nameOf))}`,
        mends: isTaken
          ? cause.tiers.flatMap((tier) => missingNegatives(open, tiers[tier]!, cause.entryTerm))
          : [],
        noMend: isTaken ? null : `${nameOf(own)} stops it, too, or does not run: nothing would serve it.`,
      };
    case 'negative in the way': {
      const all = cause.negativeIds.map((id) => negatives.get(id)!);
      const apart = all.filter(({ place: { kind } }) => kind === 'list' || kind === 'account');
      const said = all.map(({ text, match, place }) => `“${text}” (${match}) in ${namePlace(open, place)}`);
      return {
        ...NOTHING,
        because: `${listed(said.slice(0, 2), said.length)} ${said.length === 1 ? 'stops' : 'stop'} it in ${nameOf(own)}`,
        mends: apart.length > 0 ? [] : all.map(letThrough),
        noMend:
          apart.length > 0
            ? 'It stands where other campaigns have it, too: open the list, or give the query another way in.'
            : null,
      };
    }
    case 'entry term missing': {
      const isOfPlan = by === 'entry terms' && cause.entryTerm.match === 'phrase';
      return {
        ...NOTHING,
        because: `“${cause.entryTerm.text}” stops it in every tier before ${nameOf(cause.tier)}, and is no entry term there`,
        entryTerm: isOfPlan ? { text: cause.entryTerm.text, tier: cause.tier } : null,
        noMend: isOfPlan
          ? null
          : `Give ${nameOf(cause.tier)} a keyword of it (Promote), or let it through again.`,
      };
    }
    case 'paused':
      return {
        ...{ ...NOTHING, because: `${nameOf(own)} does not run` },
        noMend: 'Run its campaign again on the platform.',
      };
    case 'ran dry': {
      const days = dryDays(own);
      return {
        ...{ ...NOTHING, because: `${nameOf(own)} spent its budget on ${counted(days.length, 'day')}` },
        noMend: 'Let all tiers pay out of one budget, or give it more.',
      };
    }
    case 'mended':
      return { ...NOTHING, because: 'what let it pass is mended, there or in the tray' };
    case 'not taken':
      return {
        ...{ ...NOTHING, because: `${nameOf(own)} could have served it` },
        noMend: 'It holds no keyword for it, or was outbid.',
      };
  }
}

/** The negatives that a tier needs for an entry term and does not have, as the tray leaves the account. */
export function missingNegatives(
  open: Open,
  tier: LanesInUse['tiers'][number],
  { text, match }: Pick<EntryTerm, 'text' | 'match'>,
): Change[] {
  return lacking(open, tier, { text, match }).map((place) => ({ kind: 'add negative', text, match, place }));
}

const letThrough = ({ text, match, place }: PlacedNegative): Change => ({
  ...{ kind: 'remove negative', text, match, place },
});

function namePlace({ names }: Open, { kind, id }: PlacedNegative['place']): string {
  switch (kind) {
    case 'account':
      return 'the whole account';
    case 'campaign':
      return names.campaign(id!) ?? 'its campaign';
    case 'adGroup':
      return names.adGroup(id!) ?? 'its ad group';
    case 'list':
      return `list ${names.list(id!) ?? ''}`.trim();
  }
}
