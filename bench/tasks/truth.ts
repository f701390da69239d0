import type { SeedRequest } from '@/contracts/platform';
import { compileGate, LEAST_EXPECTED, productCodeTest, type NegativeText } from '@/core';
import { ACCOUNT_SETTINGS, makeLarkfell } from '../../demo/larkfell';
import { count, type Line } from '../measure';
import { passOver, SURE, type PassOfWorld, type TrueTerm } from '../truth/guided-pass';
import { setsOnHeldBack, type SetOutcome } from '../truth/lasting';
import { netOfTrays } from '../truth/net';
import { play, type Played } from '../truth/play';
import { makeTidewell, TIDEWELL_TARGET } from '../truth/tidewell';

/** What is aimed at: spend that can never pay and is found, and conversions lost by it. */
const GOALS = { found: 0.8, lost: 0.02 };
/** How far what a tray, or nine of ten changes, save may lie from what was predicted, as a share of it. */
const NET_WITHIN = { tray: 0.1, change: 0.25 };
const NINE_OF_TEN = 0.9;
/** How many times as much of held-back terms the lasting set must stop as the smallest one. */
const LASTING = 2;
const SEEDS = [0, 1, 2];

type World = {
  name: string;
  targetOf: (played: Played) => number;
  make: (seed: number) => SeedRequest;
  codes?: string | null;
  /** four weeks with and without ten trays are played in it */
  isSmall: boolean;
};

const larkfell = (which: 0 | 1, scale: number): World => {
  const settings = Object.values(ACCOUNT_SETTINGS)[which]!;
  return {
    name: `Larkfell ${which === 0 ? 'web' : 'market'}, scale ${scale}`,
    make: (seed) => makeLarkfell(scale, seed)[which]!,
    targetOf: ({ meanValueMicros }) => settings.targetMicros ?? settings.targetAcos! * meanValueMicros,
    codes: settings.productCodePattern,
    isSmall: scale === 1,
  };
};

/**
 * What the evidence says, held against what the stand-in knows: each query's true rate. The core sees reports alone, and
 * no constant of it was chosen by these worlds.
 */
export function benchTruth(quick: boolean): Line[] {
  const worlds: World[] = [
    ...[larkfell(0, 1), larkfell(1, 1)],
    ...(quick ? [] : [larkfell(0, 4), larkfell(1, 4)]),
    { name: 'Tidewell, 200 ad groups', make: makeTidewell, targetOf: () => TIDEWELL_TARGET, isSmall: true },
  ];
  return worlds.flatMap((world) =>
    SEEDS.slice(0, quick ? 1 : SEEDS.length).flatMap((seed) => {
      const request = world.make(seed);
      const isCode = productCodeTest(world.codes ?? null);
      const played = play(request, (text) => !isCode(text));
      const pass = passOver(played, world.targetOf(played), ['larkfell']);
      const name = `${world.name}, seed ${seed}`;
      return [
        ...linesOf(name, pass, played),
        ...setLines(name, pass, played),
        ...(world.isSmall ? netLines(name, request, pass, world.targetOf(played)) : []),
      ];
    }),
  );
}

function linesOf(name: string, pass: PassOfWorld, played: Played): Line[] {
  const { terms, words, offered, negatives, missing } = pass;
  const asExact = missing.map(({ text }): NegativeText => ({ text, match: 'exact' }));
  const byWords = outcomeOf(terms, negatives);
  const whole = outcomeOf(terms, [...negatives, ...asExact]);
  const oracle = oracleOf(pass, played);
  const sure = terms.filter(({ misses }) => misses >= SURE);
  const size = `${count(terms.length)} terms, ${count(words.length)} judged runs`;
  const share = (value: number) => `${(100 * value).toFixed(1)} %`;
  const line = (task: string, ours: string, against: string, ratio: string, verdict = ''): Line => ({
    ...{ task: `${name}: ${task}`, size, ours, against, ratio, verdict },
  });
  return [
    line(
      'never-paying spend found by the pass',
      share(whole.found),
      `goal ${share(GOALS.found)}; by words alone ${share(byWords.found)}; oracle ${share(oracle.found)}`,
      (whole.found / GOALS.found).toFixed(2),
      whole.found >= GOALS.found ? '' : 'missed',
    ),
    line(
      'conversions lost',
      share(whole.lost),
      `goal ${share(GOALS.lost)}; by words alone ${share(byWords.lost)}; oracle ${share(oracle.lost)}`,
      (whole.lost / GOALS.lost).toFixed(2),
      whole.lost <= GOALS.lost ? '' : 'missed',
    ),
    calibration(
      line,
      `terms ${share(SURE)} sure`,
      sure.map(({ misses, rate, breakEven }) => ({ said: misses, isSo: rate < breakEven })),
    ),
    calibration(line, 'words offered', trulyAtFault(offered, pass, played)),
  ];
}

/** Sets for marked terms, on those that they were chosen without: the lasting one against the smallest one. */
function setLines(name: string, pass: PassOfWorld, played: Played): Line[] {
  const [exactly, mayStopOthers, like] = setsOnHeldBack(pass, played);
  const share = (value: number) => `${(100 * value).toFixed(1)} %`;
  const say = ({ held, heldCost, goodLost, others }: SetOutcome) =>
    `${share(held)} of held-back terms, ${share(heldCost)} of their cost; ${share(goodLost)} of good conversions; ${share(others)} of what else never pays`;
  return [
    {
      task: `${name}: these and their like`,
      size: `${count(like.negatives)} negatives, ${share(like.marked)} of the marked cost`,
      ours: say(like),
      against: `these exactly ${say(exactly)}; where others may be stopped ${say(mayStopOthers)}`,
      ratio: (like.held / (LASTING * exactly.held)).toFixed(2),
      verdict: like.held >= LASTING * exactly.held ? '' : 'missed',
    },
  ];
}

/** Ten trays, and what ready rules find: what each was predicted to save in four weeks, and what it saved; the cost of its terms and the Ledger's figure beside it. */
function netLines(
  name: string,
  request: SeedRequest,
  { negatives }: PassOfWorld,
  targetMicros: number,
): Line[] {
  const { trays, ofRules, alone } = netOfTrays(request, negatives, targetMicros);
  const lines = [...trays, ...ofRules].map((outcome): Line => {
    const { tray, clicks, gross, net, real, reckoned, likely } = outcome;
    const isWithin = Math.abs(net - real) <= NET_WITHIN.tray * real;
    const isChance = real >= likely[0] && real <= likely[1];
    return {
      task: `${name}: net of ${tray}`,
      size: `${count(clicks)} clicks stopped in the window`,
      ours: `predicted ${(net / real).toFixed(2)} of what it saved; the Ledger reckons ${(reckoned / real).toFixed(2)}`,
      against: `the cost of its terms ${(gross / real).toFixed(2)}; goal within ${100 * NET_WITHIN.tray} %`,
      ratio: (Math.abs(net - real) / real / NET_WITHIN.tray).toFixed(2),
      verdict: isWithin ? '' : isChance ? 'missed, by chance of clicks' : 'missed',
    };
  });
  if (alone.length === 0) return lines;
  const within = alone.filter(({ net, real }) => Math.abs(net - real) <= NET_WITHIN.change * real).length;
  const likely = [...trays, ...alone].filter(({ likely: [from, to], real }) => real >= from && real <= to);
  const both = trays.length + alone.length;
  return [
    ...lines,
    {
      task: `${name}: net of single changes`,
      size: `${count(alone.length)} of 90 clicks or more`,
      ours: `${within} of ${alone.length} within ${100 * NET_WITHIN.change} %`,
      against: `goal nine of ten; within the range said, trays too: ${likely.length} of ${both}`,
      ratio: (within / alone.length / NINE_OF_TEN).toFixed(2),
      verdict: within >= NINE_OF_TEN * alone.length ? '' : 'missed',
    },
  ];
}

/** Said and true, and by how many standard errors the truth lies below what was said. */
function calibration(
  line: (task: string, ours: string, against: string, ratio: string, verdict?: string) => Line,
  what: string,
  judged: readonly { said: number; isSo: boolean }[],
): Line {
  const n = judged.length;
  const said = judged.reduce((sum, one) => sum + one.said, 0) / n;
  const so = judged.filter(({ isSo }) => isSo).length / n;
  const error = Math.sqrt(judged.reduce((sum, one) => sum + one.said * (1 - one.said), 0)) / n;
  const below = (said - so) / error;
  return line(
    `${what}, ${n} of them`,
    `${(100 * so).toFixed(1)} % truly so`,
    `${(100 * said).toFixed(1)} % said`,
    `${below.toFixed(1)} errors below`,
    n === 0 || below <= 2 ? '' : 'OVER',
  );
}

/** Shares of the never-paying spend that is stopped, and of all conversions that would be lost, by the true rates. */
function outcomeOf(
  terms: readonly TrueTerm[],
  negatives: readonly NegativeText[],
): { found: number; lost: number } {
  const gate = compileGate(negatives);
  const sums = { never: 0, found: 0, conversions: 0, lost: 0 };
  for (const { text, costMicros, clicks, rate, neverPays } of terms) {
    const isStopped = gate.isStopped(text);
    if (neverPays) sums.never += costMicros;
    if (neverPays && isStopped) sums.found += costMicros;
    sums.conversions += clicks * rate;
    if (isStopped) sums.lost += clicks * rate;
  }
  return { found: sums.found / sums.never, lost: sums.lost / sums.conversions };
}

/** Who knows the true factor of each run stops those that bring under a fifth, without shutting out a keyword. */
function oracleOf({ terms, words }: PassOfWorld, played: Played): { found: number; lost: number } {
  const factors = trueFactors(words, { terms }, played);
  const keywords = played.keywords.map(({ text }) => ` ${text} `);
  const negatives = words.flatMap(({ ngram, expected }, w): NegativeText[] =>
    expected >= LEAST_EXPECTED && factors[w]!.factor < 0.2 && !keywords.some((k) => k.includes(` ${ngram} `))
      ? [{ text: ngram, match: 'phrase' }]
      : [],
  );
  return outcomeOf(terms, negatives);
}

function trulyAtFault(offered: PassOfWorld['offered'], pass: PassOfWorld, played: Played) {
  return trueFactors(offered, pass, played).map(({ factor, needed }, w) => ({
    said: offered[w]!.probability,
    isSo: factor < Math.min(0.5, needed),
  }));
}

/** What runs truly bring, as a share of what their ad groups truly bring; and the share that the target asks for. */
function trueFactors(
  words: PassOfWorld['words'],
  { terms }: Pick<PassOfWorld, 'terms'>,
  { rows, rateOf, keyOf }: Played,
) {
  const groups = new Map<string, { clicks: number; conversions: number }>();
  for (const { text, adGroupId, clicks } of rows) {
    const group = groups.get(adGroupId) ?? { clicks: 0, conversions: 0 };
    groups.set(adGroupId, group);
    group.clicks += clicks;
    group.conversions += clicks * rateOf.get(text)!;
  }
  const due = new Map<string, number>();
  for (const { text, adGroupId, clicks } of rows) {
    const { clicks: all, conversions } = groups.get(adGroupId)!;
    due.set(keyOf(text), (due.get(keyOf(text)) ?? 0) + (clicks * conversions) / all);
  }
  const texts = terms.map((term) => ({ ...term, padded: ` ${term.text} `, due: due.get(term.text)! }));
  return words.map(({ ngram }) => {
    const sum = { due: 0, brought: 0, needed: 0 };
    for (const term of texts) {
      if (!term.padded.includes(` ${ngram} `)) continue;
      sum.due += term.due;
      sum.brought += term.clicks * term.rate;
      sum.needed += term.clicks * term.breakEven;
    }
    return { factor: sum.brought / sum.due, needed: sum.needed / sum.due };
  });
}
