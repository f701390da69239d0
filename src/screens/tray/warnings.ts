import { placeKey, type NegativeText, type Place, listed } from '@/core';
import { sayCouldDrop, type TrayChange, type TrayCheck, type TrayView } from '@/contracts/tray';

/** What puts a warning right: changes that go out of the tray, negatives that go where they are needless, a reason. */
export type Mend =
  | { do: 'take out'; name: string; changeIds: number[] }
  | { do: 'drop'; name: string; negatives: readonly NegativeText[]; at: Place }
  | { do: 'give a reason'; name: string; change: TrayChange };

export type Warning = { key: string; tone: 'stop' | 'heed'; text: string; mends: Mend[] };

/** What a person should know before sending; 'stop' can not be sent so. */
export function warningsOf({ changes, room }: Pick<TrayView, 'changes' | 'room'>): Warning[] {
  return [
    ...room.flatMap((one) => overLimit(one, changes)),
    ...changes.flatMap(warningsOfChange),
    ...warningsOfPlaces(changes),
  ];
}

/** What was found of the whole tray. What can not be made any more keeps it from being sent. */
export function warningsOfCheck({ needless, gone }: TrayCheck, changes: readonly TrayChange[]): Warning[] {
  const byId = new Map(changes.map((change) => [change.id, change]));
  const stands = <T extends { changeId: number }>(found: readonly T[]) =>
    found.flatMap((one) => ({ ...one, change: byId.get(one.changeId) })).filter((one) => one.change);
  const covered = stands(needless);
  const all = covered.map(({ change }) => change!);
  return [
    ...stands(gone).map(({ changeId, said, reason, change }): Warning => ({
      ...{ key: `${changeId} gone`, tone: 'stop', mends: [takeOut([change!])] },
      text: `“${said}” can not be sent any more: ${reason}`,
    })),
    ...covered.map(({ changeId, coveredBy, change }, i): Warning => ({
      ...{ key: `${changeId} needless`, tone: 'heed' },
      text: `“${change!.said}” is needless: ${coveredBy} stops all of it.`,
      mends:
        i === 0 && all.length > 1
          ? [takeOut([change!]), { ...takeOut(all), name: `Take all ${all.length} needless out` }]
          : [takeOut([change!])],
    })),
  ];
}

/** What is to be known of places, each once: a tray may hold a hundred changes of one campaign. */
function warningsOfPlaces(changes: readonly TrayChange[]): Warning[] {
  const byNote = new Map<string, TrayChange[]>();
  for (const change of changes)
    if (change.placeNote) byNote.set(change.placeNote, [...(byNote.get(change.placeNote) ?? []), change]);
  return [...byNote].map(([note, of]) => {
    const what = of.length === 1 ? `“${of[0]!.said}”` : `“${of[0]!.said}” and ${of.length - 1} more`;
    return { key: note, tone: 'heed', text: `${what}: ${note}`, mends: [takeOut(of)] };
  });
}

const takeOut = (changes: readonly TrayChange[]): Mend => ({
  ...{ do: 'take out', changeIds: changes.map(({ id }) => id) },
  name: changes.length === 1 ? 'Take it out' : `Take all ${changes.length} out`,
});

/** Whether a change adds to what is counted in a place. */
function addsTo({ change }: TrayChange, { what, at }: TrayView['room'][number]): boolean {
  switch (what) {
    case 'negatives':
      return change.kind === 'add negative' && placeKey(change.place) === placeKey(at);
    case 'placements':
      return change.kind === 'add placement' && change.listId === at.id;
    case 'lists':
      return change.kind === 'hang list' && change.campaignId === at.id;
  }
}

function overLimit(room: TrayView['room'][number], changes: readonly TrayChange[]): Warning[] {
  const { place, at, what, used, most, couldDrop } = room;
  if (used <= most) return [];
  const over = used - most;
  const last = changes.filter((change) => addsTo(change, room)).slice(-over);
  const mends: Mend[] = [];
  if (last.length > 0) mends.push({ ...takeOut(last), name: `Take the last ${last.length} out` });
  if (couldDrop.count > 0)
    mends.push({
      do: 'drop',
      name: `Remove ${couldDrop.first.length} needless`,
      negatives: couldDrop.first,
      at,
    });
  const text = `Over the limit: ${place} would hold ${used} ${what}, and may hold ${most}. Take ${over} out, or put them elsewhere.${sayCouldDrop(couldDrop)}`;
  return [{ key: `${place} ${what}`, tone: 'stop', text, mends }];
}

function warningsOfChange(change: TrayChange): Warning[] {
  const warnings: Warning[] = [];
  if (change.heldBackBy.count > 0) {
    const { first, count } = change.heldBackBy;
    const others = count > 1 ? ` and ${count - 1} more` : '';
    warnings.push({
      key: `${change.id} held`,
      tone: 'stop',
      text: `Held back: “${change.said}” would stop the protected term “${first[0]}”${others}. Take it out, or give a reason.`,
      mends: [takeOut([change]), { do: 'give a reason', name: 'Give a reason', change }],
    });
  }
  for (const { severity, count, first } of change.touched) {
    const what = count === 1 ? 'A live keyword is' : `${count} live keywords are`;
    const named = listed(
      first.map((k) => `“${k.text}” (${k.match}, ${k.adGroup})`),
      count,
    );
    warnings.push({
      key: `${change.id} ${severity}`,
      tone: 'heed',
      text: `${what} ${severity}: ${named}, by “${change.said}”.`,
      mends: [takeOut([change])],
    });
  }
  return warnings;
}
