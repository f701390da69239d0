import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileAccountGate } from '../gate';
import { seatAlone } from './seat-alone';

const CAMPAIGNS = ['c1', 'c2', 'c3'].map((id, c) => ({
  id,
  adGroups: [0, 1, 2].map((g) => ({ id: `g${3 * c + g}` })),
}));
const SEATS = CAMPAIGNS.flatMap(({ id, adGroups }) =>
  adGroups.map((adGroup) => ({ adGroupId: adGroup.id, campaignId: id })),
);

describe('one ad group alone', () => {
  test('keeps the query, whatever way is taken, and all others lose it', () => {
    const query = fc.constantFrom('Free Hive', 'hive', 'national bee hive kit');
    fc.assert(
      fc.property(query, fc.subarray(SEATS, { minLength: 2 }), fc.nat(), (text, serving, at) => {
        const keeps = serving[at % serving.length]!;
        const ways = seatAlone(text, keeps, serving);
        expect(ways.length === 2 || ways.length === 4).toBe(true);
        for (const { changes, where } of ways) {
          const gate = compileAccountGate({
            ...{ campaigns: CAMPAIGNS, lists: [] },
            negatives: changes.map(({ text: of, match, place }, i) => ({
              ...{ id: `n${i}`, text: of, match, place, createdAt: '' },
            })),
          });
          for (const { adGroupId, campaignId } of SEATS) {
            const isServing = serving.some((one) => one.adGroupId === adGroupId);
            const isStopped = gate.stoppers(text, adGroupId).length > 0;
            if (adGroupId === keeps.adGroupId) expect(isStopped).toBe(false);
            else if (isServing) expect(isStopped).toBe(true);
            else if (where === 'ad groups' || campaignId === keeps.campaignId) expect(isStopped).toBe(false);
          }
        }
      }),
    );
  });

  test('phrase stops longer queries, too, and exact does not', () => {
    const [a, b] = [SEATS[0]!, SEATS[3]!];
    expect(
      seatAlone('Bee  Hive', a, [a, b]).map(({ where, match, changes }) => [where, match, changes]),
    ).toEqual(
      (['exact', 'phrase'] as const).flatMap((match) => [
        ['ad groups', match, [stop(match, 'adGroup', 'g3')]],
        ['campaigns', match, [stop(match, 'campaign', 'c2')]],
      ]),
    );
  });

  test('in one campaign there is no campaign to stop it in', () => {
    expect(seatAlone('hive', SEATS[0]!, SEATS.slice(0, 3)).map(({ where }) => where)).toEqual([
      'ad groups',
      'ad groups',
    ]);
  });
});

const stop = (match: 'exact' | 'phrase', kind: 'adGroup' | 'campaign', id: string) => ({
  ...{ kind: 'add negative', text: 'bee hive', match, place: { kind, id } },
});
