import { randomLcg } from 'd3';
import {
  codeTexts,
  countCodedNgrams,
  expectOfTexts,
  fitPrior,
  judgeNgrams,
  LEAST_EXPECTED,
  shrinkRates,
  type ServedColumns,
} from '@/core';
import { makeAccount } from '../account';
import { against, count, interleaved, type Line } from '../measure';

const AD_GROUPS = 500;
const TARGET = 20_000_000;

/** The prior of a million terms, and words at fault over 600,000 terms in 500 ad groups. */
export async function benchEvidence(quick: boolean): Promise<Line[]> {
  return [
    ...(await benchPrior(quick ? 100_000 : 1_000_000)),
    ...(await benchWords(quick ? 30_000 : 600_000)),
  ];
}

async function benchPrior(size: number): Promise<Line[]> {
  const draw = randomLcg(0.31);
  const clicks = Float64Array.from({ length: size }, () => 1 + Math.floor(-Math.log(1 - draw()) * 2.5));
  const conversions = clicks.map((n) =>
    draw() < 0.03 * Math.min(n, 8) ? 1 + Math.floor(draw() * Math.min(n, 2)) : 0,
  );
  function* terms() {
    for (let t = 0; t < size; t++)
      yield { clicks: clicks[t]!, conversions: Math.min(clicks[t]!, conversions[t]!) };
  }
  const times = await interleaved(
    {
      ours: () => fitPrior(terms()),
      through: () => {
        let sum = 0;
        for (const term of terms()) sum += term.clicks * term.conversions;
        return sum;
      },
    },
    5,
  );
  const limit = times.ours.map(() => 1_000);
  return against('prior by maximum likelihood', `${count(size)} terms`, times.ours, {
    'limit: a second': limit,
    'one way through the terms': times.through,
  });
}

async function benchWords(size: number): Promise<Line[]> {
  const { terms, clicks, conversions, costMicros } = makeAccount(size, 1);
  const table = codeTexts(terms);
  const rows = terms.map((_, term) => ({
    ...{ term, clicks: clicks[term]!, costMicros: costMicros[term]!, conversions: conversions[term]! },
  }));
  const served = columnsOf(clicks, conversions, costMicros);
  const judge = () => {
    const { rates } = shrinkRates(...sumsOf(served))!;
    return judgeNgrams(table, expectOfTexts(size, served, rates), 3, LEAST_EXPECTED).words;
  };
  // As many runs are counted as are judged: those whose ad groups would have brought a conversion or more.
  const most = judge().length;
  const times = await interleaved(
    { ours: judge, counting: () => countCodedNgrams(table, rows, { from: 1, to: 3, most }) },
    3,
  );
  return against(
    'words at fault, runs of 1–3 words',
    `${count(size)} terms, ${AD_GROUPS} ad groups, ${count(most)} runs`,
    times.ours,
    {
      'limit 1.3: counting the runs once': times.counting,
    },
  );
}

/** Each term in one ad group, the words of a few of them without any conversion. */
function columnsOf(clicks: Float64Array, conversions: Float64Array, costMicros: Float64Array): ServedColumns {
  const draw = randomLcg(0.77);
  return {
    textOf: Uint32Array.from(clicks.keys()),
    adGroupOf: Uint32Array.from(clicks, () => Math.floor(draw() * AD_GROUPS)),
    clicks,
    conversions: conversions.map((c, t) => Math.min(clicks[t]!, c)),
    needed: costMicros.map((cost) => cost / TARGET),
  };
}

function sumsOf({ adGroupOf, clicks, conversions }: ServedColumns): [Float64Array, Float64Array] {
  const [n, c] = [new Float64Array(AD_GROUPS), new Float64Array(AD_GROUPS)];
  adGroupOf.forEach((g, r) => {
    n[g]! += clicks[r]!;
    c[g]! += conversions[r]!;
  });
  return [n, c];
}
