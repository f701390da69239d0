import { randomLcg } from 'd3';
import { lastingSet, smallestSet } from '@/core';
import { makeAccount } from '../account';
import { against, count, interleaved, type Line } from '../measure';

/** The least that the task can't do without: all runs of 1 to 4 words, with the terms that hold them. */
function makeRuns(texts: readonly string[]) {
  const runs = new Map<string, number[]>();
  texts.forEach((text, t) => {
    const of = text.split(' ');
    for (let n = 1; n <= 4; n++)
      for (let at = 0; at + n <= of.length; at++) {
        const run = of.slice(at, at + n).join(' ');
        const held = runs.get(run);
        if (!held) runs.set(run, [t]);
        else if (held.at(-1) !== t) held.push(t);
      }
  });
  return runs;
}

export async function benchSmallestSet(quick: boolean): Promise<Line[]> {
  const size = quick ? 4_000 : 20_000;
  const { terms, costMicros } = makeAccount(size * 1.25, 1);
  const unwanted = terms.slice(0, size).map((text, i) => ({ text, costMicros: costMicros[i]! }));
  return [
    ...(await onOne('as in an account', unwanted, terms.slice(size), 100, quick)),
    ...(await onOne('covers overlap, few open', ...overlapping(size / 2), quick)),
  ];
}

/** A small vocabulary: every word is in many terms, so that each choice takes from the others. */
function overlapping(size: number): [{ text: string; costMicros: number }[], string[], number] {
  const draw = randomLcg(0.7);
  const text = (length: number) => Array.from({ length }, () => `w${Math.floor(60 * draw())}`).join(' ');
  const unwanted = Array.from({ length: size }, () => ({
    ...{ text: text(3 + Math.floor(3 * draw())), costMicros: Math.floor(1e6 * draw()) },
  }));
  return [unwanted, Array.from({ length: 40 }, () => text(3)), 25];
}

async function onOne(
  name: string,
  unwanted: { text: string; costMicros: number }[],
  open: string[],
  limit: number,
  quick: boolean,
): Promise<Line[]> {
  const answer = smallestSet({ unwanted, open, limit });
  const like = () => lastingSet({ unwanted, open: [], good: open, limit, evidenceOf: () => 0.9 });
  const times = await interleaved(
    {
      ours: () => smallestSet({ unwanted, open, limit }),
      like,
      runs: () => makeRuns(unwanted.map((u) => u.text)),
    },
    quick ? 3 : 5,
  );
  const share = answer.stoppedCostMicros / answer.boundMicros;
  const size = `${count(unwanted.length)} unwanted, ${count(open.length)} open, ${limit}`;
  const limits = { 'limit: making all runs': times.runs };
  return [
    ...against(`smallest set, ${name}`, size, times.ours, limits).map((line) => ({
      ...line,
      verdict: `at least ${(100 * share).toFixed(2)} % of the best`,
    })),
    ...against(`these and their like, ${name}, chosen twice`, size, times.like, limits),
  ];
}
