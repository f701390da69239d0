import { sayCouldDrop, type TrayChange, type TrayView } from '@/contracts/tray';

export type Warning = { key: string; tone: 'stop' | 'heed'; text: string };

/** What a person should know before sending; 'stop' can not be sent so. */
export function warningsOf({ changes, room }: Pick<TrayView, 'changes' | 'room'>): Warning[] {
  return [...room.flatMap(overLimit), ...changes.flatMap(warningsOfChange), ...warningsOfPlaces(changes)];
}

/** What is to be known of places, each once: a tray may hold a hundred changes of one campaign. */
function warningsOfPlaces(changes: readonly TrayChange[]): Warning[] {
  const byNote = new Map<string, TrayChange[]>();
  for (const change of changes)
    if (change.placeNote) byNote.set(change.placeNote, [...(byNote.get(change.placeNote) ?? []), change]);
  return [...byNote].map(([note, of]) => {
    const what = of.length === 1 ? `“${of[0]!.said}”` : `“${of[0]!.said}” and ${of.length - 1} more`;
    return { key: note, tone: 'heed', text: `${what}: ${note}` };
  });
}

function overLimit({ place, what, used, most, couldDrop }: TrayView['room'][number]): Warning[] {
  if (used <= most) return [];
  const text = `Over the limit: ${place} would hold ${used} ${what}, and may hold ${most}. Take ${used - most} out, or put them elsewhere.${sayCouldDrop(couldDrop)}`;
  return [{ key: `${place} ${what}`, tone: 'stop', text }];
}

function warningsOfChange(change: TrayChange): Warning[] {
  const warnings: Warning[] = [];
  if (change.heldBackBy.count > 0) {
    const { first, count } = change.heldBackBy;
    const others = count > 1 ? ` and ${count - 1} more` : '';
    warnings.push({
      key: `${change.id} held`,
      tone: 'stop',
      text: `Held back: “${change.said}” would stop the protected term “${first[0]}”${others}. Take it out, or put it in again with a reason.`,
    });
  }
  for (const { severity, count, first } of change.touched) {
    const what = count === 1 ? 'A live keyword is' : `${count} live keywords are`;
    const named = first.map((k) => `“${k.text}” (${k.match}, ${k.adGroup})`).join(', ');
    const more = count > first.length ? ` and ${count - first.length} more` : '';
    warnings.push({
      key: `${change.id} ${severity}`,
      tone: 'heed',
      text: `${what} ${severity}: ${named}${more}, by “${change.said}”.`,
    });
  }
  return warnings;
}
