import type { TrayChange } from '@/contracts/tray';

export type Warning = { key: string; tone: 'stop' | 'heed'; text: string };

/** What a person should know before sending; 'stop' can not be sent so. */
export function warningsOf(changes: readonly TrayChange[]): Warning[] {
  return changes.flatMap((change): Warning[] => {
    const warnings: Warning[] = [];
    if (change.heldBackBy.length > 0) {
      const [first, ...more] = change.heldBackBy;
      const others = more.length > 0 ? ` and ${more.length} more` : '';
      warnings.push({
        key: `${change.id} held`,
        tone: 'stop',
        text: `Held back: “${change.said}” would stop the protected term “${first}”${others}. Take it out, or put it in again with a reason.`,
      });
    }
    const shutOut = change.touched.filter((k) => k.severity === 'shut out');
    const rest = change.touched.filter((k) => k.severity !== 'shut out');
    const name = (k: TrayChange['touched'][number]) => `“${k.text}” (${k.match}, ${k.adGroup})`;
    if (shutOut.length > 0) {
      warnings.push({
        key: `${change.id} shut`,
        tone: 'heed',
        text: `${shutOut.length === 1 ? 'A live keyword is' : `${shutOut.length} live keywords are`} shut out: ${shutOut.slice(0, 2).map(name).join(', ')}, by “${change.said}”.`,
      });
    }
    if (rest.length > 0) {
      warnings.push({
        key: `${change.id} narrowed`,
        tone: 'heed',
        text: `${rest.length === 1 ? 'A live keyword is' : `${rest.length} live keywords are`} ${rest[0]!.severity}: ${rest.slice(0, 2).map(name).join(', ')}, by “${change.said}”.`,
      });
    }
    return warnings;
  });
}
