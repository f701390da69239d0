import { tellProgress, type OnProgress } from '../progress';
import { AT, WIDTH } from './figures-of-facts';
import { meets, meetsAge, worthOf, type Judge, type Sums } from './meets';
import { leastOf, mostOf } from './reach';
import type { AgeCondition, LookBack, Measure, SumCondition } from './rule';
import { slidingSums, type SlidingSums } from './sliding-sums';

/** Facts in columns: those of a term (or whatever else rules are about) stand together, by day. Days count from any day on. */
export type TermFacts = {
  count: number;
  termId: Int32Array;
  day: Int32Array;
  /**
   * the evening from which a fact is known, where it came later than its day: what a later load added to the day, or took from it;
   * null where all are known on their day
   */
  knownFrom: Int32Array | null;
  adGroupId: Int32Array;
  keywordId: Int32Array;
  /** of fact f from `FIGURE_NAMES.length` · f on, in their order; NaN where a figure is never given */
  figures: Float64Array;
  /** the day from which the age of a term counts, where that is not the day of its first fact */
  begunOn?: (termId: number) => number;
};

/** A rule as it is tried, or looks. */
export type Tried = {
  when: readonly (SumCondition | AgeCondition)[];
  lookBack: LookBack;
  /** it looks on every so many-th day: 1 daily, 7 weekly */
  everyDays: number;
  /** terms that it is about; null for all */
  terms: { has(termId: number): boolean } | null;
  /** ad groups where it looks, and stops; null for all */
  adGroups: { has(adGroupId: number): boolean } | null;
  /** what these keywords served is what it sees; it stops a term in the ad groups where they did; null for all */
  keywords: { has(keywordId: number): boolean } | null;
  /** whether it may be found on an evening at all; null: on each */
  openOn: ((termId: number, evening: number) => boolean) | null;
};

/** The first and the last evening on which the rules look. */
export type Evenings = { from: number; to: number };

/** A term that a rule would have stopped, and what came after that evening. */
export type WouldStop = {
  termId: number;
  /** the evening on which it was stopped */
  day: number;
  /** what the rule saw that evening */
  sums: Sums;
  savedMicros: number;
  lostConversions: number;
  /** what these conversions might have cost by the target, micro-units */
  lostMicros: number;
};

export type Trial = {
  stopped: WouldStop[];
  /** by day from the first evening on, micro-units: what would not have been spent, and what lost conversions were worth */
  savedMicros: Float64Array;
  lostMicros: Float64Array;
};

/**
 * What rules would have done on each of the past evenings, seeing only the days of their look-backs, and of them what was
 * known then: a term is stopped on the first evening on which it meets all conditions, and everything that it brought after that
 * evening is saved, or lost. One way through the facts serves all rules; those that look at the same days of the same ad groups
 * share their sums.
 * @param evenings facts before the first one count in look-backs
 * @param judgeOf what a term is held against, whose facts are those from `begin` to before `end`
 * @param onProgress in facts
 * @returns a trial a rule, in the same order; its terms by id
 * @example tryRules(threeDaysOfSixClicks, [triedFifteen], { from: 1, to: 5 }, () => ({}))[0].stopped[0].day // 3
 */
export function tryRules(
  facts: TermFacts,
  rules: readonly Tried[],
  evenings: Evenings,
  judgeOf: (begin: number, end: number) => Judge,
  onProgress?: OnProgress,
): Trial[] {
  const length = Math.max(0, evenings.to - evenings.from + 1);
  const trials = rules.map((): Trial => ({
    ...{ stopped: [], savedMicros: new Float64Array(length), lostMicros: new Float64Array(length) },
  }));
  const views = viewsOf(rules, trials);
  const window = slidingSums(facts);
  const most = mostOf(facts);
  for (let begin = 0; begin < facts.count;) {
    const termId = facts.termId[begin]!;
    let end = begin + 1;
    while (end < facts.count && facts.termId[end] === termId) tellProgress(onProgress, end++, facts.count);
    most.turnTo(begin, end);
    let term: Term | undefined; // most terms are too small for any rule
    for (const view of views) {
      if (!most.reaches(view.least)) continue;
      term ??= { facts, termId, begin, end, evenings, judge: judgeOf(begin, end) };
      const members = view.members.filter(({ least }) => most.reaches(least));
      if (members.length > 0) lookAtTerm(term, view, members, window);
    }
    begin = end;
  }
  tellProgress(onProgress, facts.count, facts.count);
  return trials;
}

/** Rules that look at the same days of the same ad groups, on the same evenings, each with its trial. */
type View = Pick<Tried, 'lookBack' | 'everyDays' | 'adGroups' | 'keywords'> & {
  members: Member[];
  /** of each figure, the least that its members ask for */
  least: Float64Array;
  /** whether what is met depends on the evening alone, too */
  seesEvening: boolean;
};
type Member = {
  /** the least that sums must come to, in the order of `FIGURE_NAMES` */
  least: Float64Array;
  /** apart, since nearly all that is asked are sums */
  sums: SumCondition[];
  ages: AgeCondition[];
  terms: Tried['terms'];
  openOn: Tried['openOn'];
  trial: Trial;
};

function viewsOf(rules: readonly Tried[], trials: readonly Trial[]): View[] {
  const views: View[] = [];
  rules.forEach((rule, i) => {
    const { lookBack, everyDays, adGroups, keywords } = rule;
    const isSame = (view: View) =>
      view.lookBack.days === lookBack.days &&
      view.lookBack.lagDays === lookBack.lagDays &&
      view.everyDays === everyDays &&
      view.adGroups === adGroups &&
      view.keywords === keywords;
    let view = views.find(isSame);
    if (!view) {
      const least = new Float64Array(WIDTH).fill(Infinity);
      view = { lookBack, everyDays, adGroups, keywords, members: [], least, seesEvening: false };
      views.push(view);
    }
    const ages = rule.when.filter((one) => one.of === 'age');
    const sums = rule.when.filter((one) => one.of !== 'age');
    const { terms, openOn } = rule;
    view.seesEvening ||= ages.length > 0 || openOn !== null;
    const least = leastOf(sums);
    for (let figure = 0; figure < WIDTH; figure++)
      view.least[figure] = Math.min(view.least[figure]!, least[figure]!);
    view.members.push({ least, sums, ages, terms, openOn, trial: trials[i]! });
  });
  return views;
}

/** A term that is looked at, whose facts are those from `begin` to before `end`. */
type Term = {
  facts: TermFacts;
  termId: number;
  begin: number;
  end: number;
  evenings: Evenings;
  judge: Judge;
};

/** Goes through the evenings, and notes for each of some rules of a view the first one on which the term meets all its conditions. */
function lookAtTerm(term: Term, view: View, some: readonly Member[], window: SlidingSums): void {
  const { facts, termId, begin, end, evenings, judge } = term;
  const { day, adGroupId, knownFrom } = facts;
  const { lookBack, everyDays, adGroups, keywords } = view;
  const keywordId = keywords && facts.keywordId; // asked for only where a rule asks: it may be made then
  const entersOn = (f: number) => Math.max(day[f]! + lookBack.lagDays, knownFrom ? knownFrom[f]! : 0);
  const order = knownFrom && lateOrder(knownFrom, term, entersOn);
  window.clear(begin, end);
  const kept = lookBack.days + lookBack.lagDays; // so many evenings after its day, a fact leaves
  const begun = facts.begunOn?.(termId) ?? day[begin]!;
  let members = some;
  let [entered, left] = [begin, begin];
  for (let evening = evenings.from; evening <= evenings.to && members.length > 0; evening += everyDays) {
    if (!view.seesEvening) {
      // Where nothing comes or goes, what was not met is not met: the next evening is that of the next change.
      const enters = entered < end ? entersOn(order ? order[entered - begin]! : entered) : Infinity;
      const change = Math.min(enters, left < end ? day[left]! + kept : Infinity);
      if (change > evening) evening += everyDays * Math.ceil((change - evening) / everyDays);
      if (evening > evenings.to) break;
    }
    const first = evening - kept + 1;
    for (; entered < end; entered++) {
      const f = order ? order[entered - begin]! : entered;
      if (entersOn(f) > evening) break;
      if (day[f]! < first || (adGroups && !adGroups.has(adGroupId[f]!))) continue;
      if (!keywords || keywords.has(keywordId![f]!)) window.enter(f);
    }
    for (; left < end && day[left]! < first; left++) window.leave(left);
    if (window.facts() === 0) continue;
    const sums = window.sums();
    const seen: Seen = { termId, sums, evening, age: evening - begun, judge, days: lookBack.days };
    const met: Member[] = [];
    for (const member of members) if (isMet(member, seen)) met.push(member);
    if (met.length === 0) continue;
    for (const { trial } of met) noteStop(term, view, evening, { sums, window, trial });
    members = members.filter((member) => !met.includes(member));
  }
}

/** What rules see of a term on an evening, over so many days; its age is in days. */
type Seen = { termId: number; sums: Sums; evening: number; age: number; judge: Judge; days: number };

function isMet(member: Member, { termId, sums, evening, age, judge, days }: Seen): boolean {
  for (const condition of member.sums) if (!meets(condition, sums, judge, days)) return false;
  for (const condition of member.ages) if (!meetsAge(condition, age)) return false;
  if (member.openOn && !member.openOn(termId, evening)) return false;
  return !member.terms || member.terms.has(termId); // last, as it may read the text
}

/** The facts of a term in the order in which they come to be seen; null where that is the order in which they stand. */
function lateOrder(
  knownFrom: Int32Array,
  { facts: { day }, begin, end }: Term,
  entersOn: (f: number) => number,
): number[] | null {
  let isLate = false;
  for (let f = begin; f < end && !isLate; f++) isLate = knownFrom[f]! > day[f]!;
  if (!isLate) return null;
  return Array.from({ length: end - begin }, (_, i) => begin + i).sort((a, b) => entersOn(a) - entersOn(b));
}

/** Notes that a term is stopped on an evening, and what it brought after it. */
function noteStop(
  { facts, termId, begin, end, evenings, judge }: Term,
  { adGroups, keywords }: View,
  evening: number,
  { sums, window, trial }: { sums: Sums; window: SlidingSums; trial: Trial },
): void {
  const { day, adGroupId } = facts;
  const there = keywords ? adGroupsSeen(facts, { begin, end }, window) : adGroups;
  const stop: WouldStop = {
    ...{ termId, day: evening, sums, savedMicros: 0, lostConversions: 0, lostMicros: 0 },
  };
  for (let f = begin; f < end; f++) {
    if (day[f]! <= evening || day[f]! > evenings.to) continue;
    if (there && !there.has(adGroupId[f]!)) continue;
    const figure = (name: Measure) => facts.figures[WIDTH * f + AT[name]]! || 0;
    const [costMicros, conversions] = [figure('costMicros'), figure('conversions')];
    const lostMicros = worthOf(judge, { conversions, valueMicros: figure('valueMicros') });
    stop.savedMicros += costMicros;
    stop.lostConversions += conversions;
    stop.lostMicros += lostMicros;
    trial.savedMicros[day[f]! - evenings.from]! += costMicros;
    trial.lostMicros[day[f]! - evenings.from]! += lostMicros;
  }
  trial.stopped.push(stop);
}

/** Ad groups where the keywords of a rule served the term: what is stopped there is stopped for their other keywords, too. */
function adGroupsSeen(
  { adGroupId }: TermFacts,
  { begin, end }: { begin: number; end: number },
  window: SlidingSums,
): ReadonlySet<number> {
  const seen = new Set<number>();
  for (let f = begin; f < end; f++) if (window.holds(f)) seen.add(adGroupId[f]!);
  return seen;
}
