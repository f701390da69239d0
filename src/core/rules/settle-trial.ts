import { bisectLeft } from 'd3-array';
import { AT, WIDTH } from './figures-of-facts';
import { worthOf, type Judge } from './meets';
import type { Measure } from './rule';
import { textsIn, type Texts } from './texts-in-facts';
import type { Evenings, TermFacts, Trial, Tried, WouldStop } from './trial';

type Settling = {
  facts: TermFacts;
  texts: Texts;
  evenings: Evenings;
  /** where the rule stops; null: everywhere */
  adGroups: Tried['adGroups'];
  /** the texts that a stop shuts out */
  holding(termId: number): Iterable<number>;
  judgeOf(termId: number): Judge;
};

/** A trial whose stops shut out more than one text: each text is stopped once, by the first stop, and its later facts count there. */
export function settleTrial(
  trial: Trial,
  { facts, texts, evenings, adGroups, holding, judgeOf }: Settling,
): Trial {
  const isStopped = new Set<number>();
  return settleOnce(trial, { facts, evenings, judgeOf }, ({ termId }, count) => {
    for (const t of holding(termId)) {
      if (isStopped.has(t)) continue;
      isStopped.add(t);
      for (let f = texts.begin[t]!; f < texts.end[t]!; f++)
        if (!adGroups || adGroups.has(facts.adGroupId[f]!)) count(f);
    }
  });
}

/**
 * A trial whose stops shut out some facts each, of which each counts once, for the first stop that shuts it out.
 * @param shutOut calls `count` for each fact that a stop shuts out and none before it did; stops come by their evenings
 */
export function settleOnce(
  { stopped, savedMicros }: Trial,
  { facts, evenings, judgeOf }: Pick<Settling, 'facts' | 'evenings' | 'judgeOf'>,
  shutOut: (stop: WouldStop, count: (fact: number) => void) => void,
): Trial {
  const stops = stopped
    .map((stop) => ({ ...stop, savedMicros: 0, lostConversions: 0, lostMicros: 0 }))
    .sort((a, b) => a.day - b.day || a.termId - b.termId);
  const days = {
    savedMicros: new Float64Array(savedMicros.length),
    lostMicros: new Float64Array(savedMicros.length),
  };
  for (const stop of stops)
    shutOut(stop, (f) => {
      const day = facts.day[f]!;
      if (day <= stop.day || day > evenings.to) return;
      const figure = (name: Measure) => facts.figures[WIDTH * f + AT[name]]! || 0;
      const [costMicros, conversions] = [figure('costMicros'), figure('conversions')];
      const lostMicros = worthOf(judgeOf(stop.termId), { conversions, valueMicros: figure('valueMicros') });
      stop.savedMicros += costMicros;
      stop.lostConversions += conversions;
      stop.lostMicros += lostMicros;
      days.savedMicros[day - evenings.from]! += costMicros;
      days.lostMicros[day - evenings.from]! += lostMicros;
    });
  return { stopped: stops.sort((a, b) => a.termId - b.termId), ...days };
}

/**
 * A trial of a rule that stops terms as phrases: whatever holds one of them is stopped with it. A term without words, such as a product
 * code, is stopped alone.
 * @param textOf what a query says; null for what is none
 * @example asPhrases({ stopped: [], savedMicros: new Float64Array(5), lostMicros: new Float64Array(5) }, { facts: threeDaysOfSixClicks, evenings: { from: 1, to: 5 }, adGroups: null, textOf: () => 'bee hive', judgeOf: () => ({}) }).stopped // []
 */
export function asPhrases(
  trial: Trial,
  {
    textOf,
    judgeOf,
    ...rest
  }: Pick<Settling, 'facts' | 'evenings' | 'adGroups'> & {
    textOf(termId: number): string | null;
    judgeOf(begin: number, end: number): Judge;
  },
): Trial {
  const texts = textsIn(rest.facts, (termId) => textOf(termId) ?? '');
  const terms = Array.from(texts.begin, (begin) => rest.facts.termId[begin]!);
  const placeOf = (termId: number) => bisectLeft(terms, termId);
  return settleTrial(trial, {
    ...{ ...rest, texts },
    holding(termId) {
      const text = textOf(termId);
      return text ? texts.holding(text) : [placeOf(termId)];
    },
    judgeOf(termId) {
      const t = placeOf(termId);
      return judgeOf(texts.begin[t]!, texts.end[t]!);
    },
  });
}
