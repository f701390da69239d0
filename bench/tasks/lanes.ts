import { compileGate, compileLanes, rerouteQueries, stops, type Tier } from '@/core';
import { makeAccount } from '../account';
import { against, count, interleaved, mustAgree, timedOnce, type Line } from '../measure';

const ENTRIES = 2_000;
const SAMPLE = 1 / 1_000;

/** A million queries routed by a plan of three tiers, held against a gate of its entry terms that tells whether they stop a query. */
export async function benchLanes(quick: boolean): Promise<Line[]> {
  const { terms, negatives } = makeAccount(quick ? 100_000 : 1_000_000, ENTRIES);
  const half = ENTRIES / 2;
  const texts = negatives.map(({ text }) => text);
  const tiers: Tier[] = [
    { id: 'all', entryTerms: [] },
    { id: 'makers', entryTerms: texts.slice(0, half) },
    { id: 'products', entryTerms: texts.slice(half) },
  ];
  const entries = texts.map((text) => ({ text, match: 'phrase' as const }));
  const served = terms.map((query, i) => {
    const clicks = 1 + (i % 7);
    return { query, tier: i % 3, clicks, costMicros: 400_000 * clicks, conversions: i % 50 === 0 ? 1 : 0 };
  });
  const routed = () => {
    const { route } = compileLanes(tiers);
    const landed = [0, 0, 0];
    for (const query of terms) landed[route(query)]! += 1;
    return landed;
  };
  const part = terms.filter((_, i) => i % (1 / SAMPLE) === 0);
  const plain = () =>
    part.map((query) => {
      const last = entries.findLastIndex((entry) => stops(entry, query));
      return last < 0 ? 0 : last < half ? 1 : 2;
    });
  const lanes = compileLanes(tiers);
  mustAgree('lanes', part.map(lanes.route), plain());
  const gateOver = () => {
    const gate = compileGate(entries);
    return terms.reduce((sum, query) => sum + gate.stoppers(query).length, 0);
  };
  const times = await interleaved(
    { ours: routed, gate: gateOver, rerouted: () => rerouteQueries(compileLanes(tiers), 3, served) },
    quick ? 3 : 5,
  );
  const loop = await timedOnce(plain);
  const size = `${count(terms.length)} queries, ${count(ENTRIES)} entry terms`;
  return [
    ...against('lanes: where queries land', size, times.ours, {
      'the gate over them': times.gate,
      'plain loop': { times: [loop], share: SAMPLE },
    }),
    ...against('lanes: queries by the plan beside how they went', size, times.rerouted, {
      'the gate over them': times.gate,
    }),
  ];
}
