import { words } from '../text';

/**
 * A text without the runs of words that are struck out of it (rules 16.1); the text itself where nothing would be left.
 * @param struck the words of each run
 * @example strikeOut('bee hive north yorkshire', [['yorkshire'], ['north']]) // 'bee hive'
 */
export function strikeOut(text: string, struck: readonly (readonly string[])[]): string {
  if (struck.length === 0) return text;
  const all = words(text);
  const isOut = new Uint8Array(all.length);
  for (const run of struck)
    for (let at = 0; at + run.length <= all.length; at++)
      if (run.length > 0 && run.every((word, i) => all[at + i] === word)) isOut.fill(1, at, at + run.length);
  const left = all.filter((_, i) => isOut[i] === 0);
  return left.length === all.length || left.length === 0 ? text : left.join(' ');
}
