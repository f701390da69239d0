import {
  buildTermTable,
  compileGate,
  matchingTexts,
  normalise,
  stops,
  type MatchType,
  type NegativeText,
} from '@/core';
import { makeLarkfell } from '../demo/larkfell';
import { interleaved, ms, type Line } from './measure';

/** Slow peers run on a part of the queries, and their time is scaled up. */
const SAMPLE = 50;

/** The compiled gate and the posting lists against plain loops, on the demo's queries. */
export function benchCore(quick: boolean): Line[] {
  const queries = makeLarkfell(quick ? 1 : 4)[0]!.queries.map((q) => q.text);
  const negatives = pickNegatives(queries, quick ? 500 : 2_000);
  const repeats = quick ? 3 : 7;
  const sample = queries.filter((_, i) => i % SAMPLE === 0);

  const compiled = () => {
    const gate = compileGate(negatives);
    return queries.map((query) => gate.stoppers(query));
  };
  const plain = () => sample.map((query) => negatives.flatMap((n, i) => (stops(n, query) ? [i] : [])));
  const [expected, answers] = [plain(), compiled().filter((_, i) => i % SAMPLE === 0)];
  if (JSON.stringify(expected) !== JSON.stringify(answers)) throw new Error('gate: two answers differ');
  const [tokenise, gate, loop] = interleaved([() => queries.map(normalise), compiled, plain], repeats) as [
    number,
    number,
    number,
  ];

  const table = buildTermTable(queries);
  const drafted = negatives.slice(0, 50);
  const byIndex = () => drafted.map((n) => matchingTexts(table, n));
  const byScan = () => {
    const scanned = compileGate(drafted);
    return queries.map((q) => scanned.stoppers(q));
  };
  const found = byIndex().reduce((sum, texts) => sum + texts.length, 0);
  if (found !== byScan().reduce((sum, hits) => sum + hits.length, 0))
    throw new Error('effect: two answers differ');
  const [index, scan] = interleaved([byIndex, byScan], repeats) as [number, number];

  const size = `${queries.length.toLocaleString('en')} queries × ${negatives.length.toLocaleString('en')} negatives`;
  return [
    line('gate: all stoppers, index built', size, gate, tokenise, 'normalising the queries once'),
    line(
      'gate: all stoppers, index built',
      size,
      gate,
      loop * SAMPLE,
      `plain loop (1/${SAMPLE} of the queries)`,
    ),
    line(
      'effect of 50 negatives',
      `${queries.length.toLocaleString('en')} terms`,
      index,
      scan,
      'scanning all terms with the gate',
    ),
  ];
}

function line(task: string, size: string, ours: number, peer: number, name: string): Line {
  return {
    task,
    size,
    ours: ms(ours),
    against: `${name}: ${ms(peer)}`,
    ratio: (ours / peer).toFixed(4),
    verdict: '',
  };
}

/** Words and pairs of words that occur in the queries, in all match types, always the same. */
function pickNegatives(queries: readonly string[], count: number): NegativeText[] {
  const matches: MatchType[] = ['phrase', 'broad', 'exact', 'phrase', 'broad'];
  return Array.from({ length: count }, (_, i) => {
    const words = queries[(i * 7919) % queries.length]!.split(' ');
    const match = matches[i % matches.length]!;
    return { match, text: match === 'exact' ? words.join(' ') : words.slice(0, 1 + (i % 3)).join(' ') };
  });
}
