import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { bidOfRule, type Change, type Condition, type Rule, type RuleAction } from '@/core';
import { RuleSchema } from '@/contracts/rule-sentence';
import { TrialViewSchema } from '@/contracts/rules';
import { groundOf } from '@/server/compute/evidence/evidence';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { openWorkbench, requireAccount } from '@/server/use-cases/open-workbench';
import { decideFindings } from '@/server/use-cases/rules/decide-findings';
import { giveVerdictsOfFindings } from '@/server/use-cases/rules/give-verdicts-of-findings';
import { changeRule } from '@/server/use-cases/rules/keep-rules';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { viewNext } from '@/server/use-cases/today/what-next';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { rulesOf } from '../support/rules';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => (world = await makeWorld()));
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const { findings, whileOn, found } = rulesOf(() => world);
const clicks = (value: number): Condition => ({ of: 'clicks', is: 'at least', value });
const aRule = (over: Partial<Rule> = {}): Rule => ({
  ...{ about: 'keywords', when: [clicks(1)], lookBack: { days: 60, lagDays: 0 } },
  ...{ where: { is: 'everywhere', campaigns: [] }, then: { do: 'pause' } },
  ...{ how: { is: 'by approval' }, often: 'after each report' },
  ...over,
});
const bid = (
  way: 'lower' | 'raise',
  over: { leastMicros?: number; mostMicros?: number } = {},
): RuleAction => ({
  ...{ do: 'set bid', way, leastMicros: 10_000, mostMicros: 5_000_000 },
  ...over,
});

type Row = { id: number; text: string; match: string; clicks: number; conversions: number; bid: number };
/** What live keywords brought, by plain SQL; the costliest first. */
async function brought(): Promise<Row[]> {
  const { rows } = await world.db.raw<{ rows: Row[] }>(
    `select k.keyword_id as id, k.text, k.match, k.bid_micros as bid,
            cast(sum(d.clicks) as integer) as clicks, cast(sum(d.conversions) as double precision) as conversions
       from term_day d join keyword k using (account_id, keyword_id)
      where d.account_id = :id and k.status = 'live' group by k.keyword_id, k.text, k.match, k.bid_micros having sum(d.clicks) > 0
      order by sum(d.cost_micros) desc`,
    { id: world.accountId },
  );
  return rows;
}
const idsOf = (changes: readonly Change[]) =>
  changes.flatMap((one) => ('keywordId' in one ? [Number(one.keywordId)] : []));

describe('a rule on keywords', () => {
  test('finds live keywords by what they brought, and says which; tried, it says the same', async () => {
    const rows = (await brought()).filter((one) => one.clicks >= 20);
    expect(rows.length).toBeGreaterThan(1);
    const rule = aRule({ when: [clicks(20)] });
    await whileOn(rule, async () => {
      const lines = await findings();
      expect(lines.map((one) => idsOf(one.changes))).toEqual(rows.map(({ id }) => [id]));
      const { next } = await viewNext(...at());
      const told = next.find(({ kind }) => kind === 'decide findings')!;
      expect(told.first.map(({ text }) => text)).toEqual(lines.slice(0, 8).map(({ term }) => term));
      for (const [i, line] of lines.entries()) {
        expect(line).toMatchObject({
          about: 'keywords',
          place: 'paused',
          clicks: rows[i]!.clicks,
          verdict: null,
        });
        expect(line.term).toContain(rows[i]!.text);
      }
    });
    const trial = await tryRule(...at(), { rule });
    expect(v.parse(TrialViewSchema, trial)).toEqual(trial);
    expect(trial.stopped).toHaveLength(rows.length);
    expect(trial.stopped.every(({ term }) => rows.some(({ text }) => term.includes(text)))).toBe(true);
  });

  test('says of which match type, of which words, and where', async () => {
    const of = async (over: Partial<Rule>) => (await found(aRule(over))).length;
    const rows = await brought();
    const everywhere: Rule['where'] = { is: 'everywhere', campaigns: [] };
    expect(await of({ where: { ...everywhere, servedBy: ['automatic'] } })).toBe(
      rows.filter(({ match }) => match === 'automatic').length,
    );
    expect(await of({ when: [clicks(1), { of: 'words', is: 'any of', words: ['course'] }] })).toBe(
      rows.filter(({ text }) => text.includes('course')).length,
    );
    const { rows: hives } = await world.db.raw<{ rows: { id: number }[] }>(
      `select campaign_id as id from campaign where name = 'Hives'`,
    );
    const inHives = await found(aRule({ where: { is: 'in', campaigns: [String(hives[0]!.id)] } }));
    expect(inHives.length).toBeGreaterThan(0);
    expect(inHives.some((term) => term.includes('course'))).toBe(false);
  });

  test('pauses with a yes; in the tray or paused it is found no more, and it comes back', async () => {
    await whileOn(aRule(), async () => {
      const [first, ...others] = await findings();
      const outcomes = await draftChanges(
        ...by(),
        first!.changes.map((change) => ({ change })),
      );
      expect(outcomes).toMatchObject([{ outcome: 'drafted' }]);
      expect(await findings()).toHaveLength(others.length);
      await removeFromTray(
        ...at(),
        outcomes.map((one) => (one.outcome === 'drafted' ? one.changeId : 0)),
      );
      expect(await findings()).toHaveLength(others.length + 1);
    });
  });

  test('lowers or raises a bid to what pays by what it saw, between its bounds, and proposes nothing else', async () => {
    const open = await openWorkbench(world.deps, await requireAccount(...at()));
    const { prior } = groundOf(open.snapshot);
    const target = { by: 'CPA' as const, micros: open.account.targetMicros };
    const rows = await brought();
    for (const way of ['lower', 'raise'] as const) {
      const then = bid(way);
      if (then.do !== 'set bid') throw new Error('it sets a bid');
      const expected = rows.flatMap((row) => {
        const asked = { judge: { target, prior }, wasMicros: Number(row.bid), unitMicros: 10_000 };
        const bidMicros = bidOfRule(then, { ...asked, sums: row });
        return bidMicros === null ? [] : [{ id: row.id, bidMicros }];
      });
      await whileOn(aRule({ then }), async () => {
        const changes = (await findings()).flatMap((one) => one.changes);
        expect(
          changes.map(
            (one) => one.kind === 'set bid' && { id: Number(one.keywordId), bidMicros: one.bidMicros },
          ),
        ).toEqual(expected);
      });
    }
    const [dearest] = rows;
    const ceiling = Number(dearest!.bid) - 10_000;
    await whileOn(aRule({ then: bid('lower', { leastMicros: ceiling, mostMicros: ceiling }) }), async () => {
      const [first] = await findings();
      expect(first!.changes).toMatchObject([{ kind: 'set bid', bidMicros: ceiling }]);
      expect(first!.place).toMatch(/^bid \d.*, was \d/);
    });
  });

  test('is told where another wants the opposite of the same keyword', async () => {
    const ceiling = 5_000_000;
    await whileOn(aRule(), async () => {
      const rule = aRule({ then: bid('raise', { leastMicros: ceiling, mostMicros: ceiling }) });
      const { against } = await tryRule(...at(), { rule });
      expect(against).toMatchObject([
        { rule: 'Rule to pause', does: 'pause', terms: (await brought()).length },
      ]);
      expect(against[0]!.first[0]).toMatch(/hive|course/);
      await whileOn(rule, async () => {
        for (const line of await findings()) expect(line.against).toHaveLength(1);
      });
      // A search term is no keyword, whatever is called alike.
      const ofTerms = { ...aRule({ then: { do: 'keep' } }), about: undefined };
      expect((await tryRule(...at(), { rule: ofTerms })).against).toEqual([]);
    });
  });

  test('is refused for a reason by its text, and opened again by the undo; a verdict is no answer to it', async () => {
    await whileOn(aRule(), async () => {
      const [first, ...others] = await findings();
      const { said } = await decideFindings(...by(), { ids: [first!.id], is: 'refused', why: 'our best' });
      expect(said).toMatch(/^Refused, and not proposed again: “[a-z ]+”$/);
      expect(await findings()).toHaveLength(others.length);
      const { ledger_entry_id } = await world.db('ledger_entry').orderBy('ledger_entry_id', 'desc').first();
      await undoEntry(...by(), ledger_entry_id);
      expect(await findings()).toHaveLength(others.length + 1);
      await expect(giveVerdictsOfFindings(...by(), { ids: [first!.id], is: 'given' })).rejects.toThrow(
        'want something else',
      );
    });
  });

  test('stays about keywords in all its versions', async () => {
    await whileOn(aRule(), (ruleId) =>
      expect(
        changeRule(...by(), {
          ...{ ruleId, name: 'Otherwise', version: 1, why: '' },
          rule: { ...aRule({ then: { do: 'tell' } }), about: undefined },
        }),
      ).rejects.toThrow('What a rule is about stays'),
    );
  });

  test.each<[string, Partial<Rule>]>([
    ['Keywords are paused or bid for', { then: { do: 'keep' } }],
    ['Keywords are paused or bid for', { about: undefined }],
    ['A condition on “kind” means nothing for keywords.', { when: [{ of: 'kind', is: 'codes' }] }],
    ['The least bid is above the most.', { then: bid('lower', { leastMicros: 9, mostMicros: 8 }) }],
  ])('is refused where it makes no sense: %s', (says, over) => {
    const { issues } = v.safeParse(RuleSchema, aRule(over));
    expect(issues?.[0]!.message).toContain(says);
  });
});
