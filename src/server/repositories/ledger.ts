import type { Knex } from 'knex';
import type { LeftKind } from '@/contracts/knots';
import type { AlertTarget } from '@/contracts/alerts';
import type { MemberRole } from '@/contracts/roles';
import type { Db } from '../db/connection';
import type { Before } from './tray/before';
import type { ChangeState } from './tray/changes';
import type { Change, HangRule, NegativeText } from '@/core';
import type { AccountFields } from './account/accounts';
import type { RuleSet } from './decisions/rule-sets';
import type { StoredVerdicts } from './decisions/verdicts';
import type { FindingPile } from '@/contracts/findings';
import type { RuleState } from '@/contracts/rules';
import type { LanePlan } from '@/contracts/lanes';
import type { LookRules } from '@/contracts/second-look';
import type { OwnTargets } from './account/own-targets';

/** What takes an entry back, as a person asks for it in the ledger (use-cases/ledger/undo-entry). */
export type LedgerUndo =
  /** `left` is the verdict that the entry gave: terms that were decided otherwise since stay so */
  | ({ do: 'set verdicts'; keys: string[]; left: 'open' | 'kept' | 'aside' } & StoredVerdicts)
  | { do: 'take back load'; file: number }
  | { do: 'load again'; file: number }
  | { do: 'let version wait'; version: number }
  | { do: 'let outside change wait'; change: number }
  | { do: 'drop rule'; rule: number }
  | { do: 'keep rule'; list: string; rule: HangRule; except: string[] }
  | { do: 'except from rule'; rule: number; campaign: string; isOut: boolean }
  | { do: 'tag words'; text: string; tag: 'neutral' | 'location' | null }
  | { do: 'write note'; kind: 'term' | 'theme' | 'list'; about: string; body: string }
  | { do: 'remove note'; note: number }
  /** `left` are the filters that the entry left under the name; null for none */
  | { do: 'save view'; name: string; search: string; left: string | null }
  | { do: 'remove view'; name: string }
  | { do: 'set'; fields: Partial<AccountFields> }
  | { do: 'set targets'; targets: OwnTargets }
  /** without a kind: a conflict, of the time when only these could be left */
  | { do: 'take knot back'; kind?: LeftKind; key: string }
  | { do: 'retire account'; isRetired: boolean }
  | { do: 'set role'; person: number; role: MemberRole }
  | { do: 'set look rules'; rules: LookRules }
  | { do: 'set rule states'; rules: { id: number; state: RuleState }[] }
  | { do: 'set alert target'; target: number; isRemoved: boolean }
  | { do: 'change alert target'; target: number; to: AlertTarget }
  | { do: 'set rule sets'; sets: RuleSet[] }
  | { do: 'set lane plan'; was: LanePlan | null; plan: LanePlan | null }
  | { do: 'put rule version back'; rule: number; version: number; left: number }
  | { do: 'decide findings'; findings: { id: number; is: FindingPile; why: string }[] };

export type NewEntry = {
  /** a person, a rule that acts by itself, or what the platform shows */
  actor: { person: number } | { rule: number } | 'read-back';
  about:
    'change' | 'keep' | 'load' | 'note' | 'tag' | 'view' | 'setting' | 'rule' | 'lanes' | 'research' | 'knot';
  what: string;
  why?: string | null;
  before?: unknown;
  after?: unknown;
  changeId?: number;
  undo?: LedgerUndo;
  /** the entry that this one takes back */
  undoes?: number;
};

export async function appendLedger(db: Db, accountId: number, entry: NewEntry): Promise<void> {
  await appendAllToLedger(db, accountId, [entry]);
}

/** Rows of one statement; each takes eleven of the 65,535 values that it may have. */
const ROWS_AT_ONCE = 1_000;

/** Appends entries in their order. */
export async function appendAllToLedger(
  db: Db,
  accountId: number,
  entries: readonly NewEntry[],
): Promise<void> {
  const rows = entries.map((entry) => ({
    account_id: accountId,
    ...actorColumns(entry.actor),
    about: entry.about,
    what: entry.what,
    why: entry.why ?? null,
    before: entry.before === undefined ? null : JSON.stringify(entry.before),
    after: entry.after === undefined ? null : JSON.stringify(entry.after),
    change_id: entry.changeId ?? null,
    undo: entry.undo ? JSON.stringify(entry.undo) : null,
    undoes: entry.undoes ?? null,
  }));
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE)
    await db('ledger_entry').insert(rows.slice(at, at + ROWS_AT_ONCE));
}

function actorColumns(actor: NewEntry['actor']) {
  if (actor === 'read-back') return { actor, person_id: null, rule_id: null };
  return 'rule' in actor
    ? { actor: 'rule', person_id: null, rule_id: actor.rule }
    : { actor: 'person', person_id: actor.person, rule_id: null };
}

export type LedgerEntry = {
  id: number;
  at: string;
  who: string;
  about: NewEntry['about'];
  what: string;
  why: string | null;
  undo: LedgerUndo | null;
  /** whether a later entry takes it back */
  isUndone: boolean;
  /** the sent change that the entry tells of, if it does */
  change: {
    id: number;
    change: Change;
    state: ChangeState;
    sentDay: string;
    before: Before | null;
    /** a change in the tray or sent that undoes it */
    undoneBy: 'drafted' | 'sent' | null;
  } | null;
};

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- a row of several tables
type Row = Record<string, any>;

/** Which entries are wanted. */
export type LedgerFilter = {
  /** the entry before which they begin: where a page ended */
  before?: number;
  about?: NewEntry['about'];
  /** letters in what was done, why, or who did it; case does not count */
  find?: string;
  /** the person who did it, rules, or nobody here: others on the platform, and what happened by itself */
  doneBy?: number | 'rules' | 'nobody';
  /** what it is about: any of them */
  touches?: readonly string[];
};

/** The newest entries first. */
export async function listLedger(
  db: Db,
  accountId: number,
  most: number,
  { before, about, find = '', doneBy, touches }: LedgerFilter = {},
): Promise<LedgerEntry[]> {
  const page = db('ledger_entry')
    .where({ account_id: accountId })
    .orderBy('ledger_entry_id', 'desc')
    .limit(most);
  if (before !== undefined) void page.where('ledger_entry_id', '<', before);
  if (about !== undefined) void page.where({ about });
  if (typeof doneBy === 'number') void page.where({ person_id: doneBy });
  else if (doneBy !== undefined)
    void page.where({ person_id: null }).where('actor', doneBy === 'rules' ? '=' : '<>', 'rule');
  if (touches !== undefined) void page.whereRaw('touches && ?::text[]', [touches as string[]]);
  if (find !== '') {
    const like = `%${find.replaceAll(/[\\%_]/g, '\\$&')}%`;
    // People are found first: with a join the indexes of what and why could not be taken.
    const people: number[] = await db('person').whereILike('name', like).pluck('person_id');
    void page.where((either) => {
      void either.whereILike('what', like).orWhereILike('why', like);
      if (people.length > 0) void either.orWhereIn('person_id', people);
    });
  }
  return await readEntries(db, page);
}

/** The negatives of all changes, each once, in small letters. */
export async function listNegativesOfChanges(db: Db, accountId: number): Promise<NegativeText[]> {
  const { rows } = await db.raw<{ rows: NegativeText[] }>(
    `select distinct lower(body ->> 'text') as text, body ->> 'match' as match from change
      where account_id = :account and body ->> 'match' is not null`,
    { account: accountId },
  );
  return rows;
}

/** The first entry of each of some changes, by the change. */
export async function findEntriesOf(
  db: Db,
  accountId: number,
  changeIds: readonly number[],
): Promise<ReadonlyMap<number, number>> {
  const rows: { change_id: number; entry: number }[] = await db('ledger_entry')
    .where({ account_id: accountId })
    .whereIn('change_id', [...changeIds])
    .groupBy('change_id')
    .select('change_id')
    .min('ledger_entry_id as entry');
  return new Map(rows.map(({ change_id, entry }) => [change_id, entry]));
}

export async function findEntry(db: Db, accountId: number, id: number): Promise<LedgerEntry | undefined> {
  const [entry] = await readEntries(
    db,
    db('ledger_entry').where({ account_id: accountId, ledger_entry_id: id }),
  );
  return entry;
}

/**
 * Reads entries with what became of them, the newest first.
 * @param page picks the rows of the ledger. It stands in a subquery of its own, so that the database works out what
 *   became of these rows alone: beside the joins its limit would come after the work for the whole ledger.
 */
async function readEntries(db: Db, page: Knex.QueryBuilder): Promise<LedgerEntry[]> {
  const rows: Row[] = await db
    .from(page.select('*').as('e'))
    .leftJoin('person as p', 'p.person_id', 'e.person_id')
    .leftJoin('change as c', function () {
      this.on('c.account_id', 'e.account_id').andOn('c.change_id', 'e.change_id');
    })
    .leftJoin('change_set as s', function () {
      this.on('s.account_id', 'c.account_id').andOn('s.change_set_id', 'c.change_set_id');
    })
    .orderBy('e.ledger_entry_id', 'desc')
    .select(
      db.raw(`(select v.name from rule r join rule_version v using (account_id, rule_id, version)
                where r.account_id = e.account_id and r.rule_id = e.rule_id) as rule`),
    )
    .select('e.*', 'p.name as person', 'c.body', 'c.state', 'c.before as change_before', 's.sent_day')
    .select(
      db.raw(`(select case when u.state = 'drafted' and us.state = 'draft' then 'drafted' else 'sent' end
                 from change u join change_set us using (account_id, change_set_id)
                where u.account_id = e.account_id and u.undoes = e.change_id and u.state not in ('refused')
                order by u.change_id desc limit 1) as undone_by`),
      db.raw(`exists (select from ledger_entry u
                 where u.account_id = e.account_id and u.undoes = e.ledger_entry_id) as is_undone`),
    );
  return rows.map(toEntry);
}

function toEntry(row: Row): LedgerEntry {
  return {
    id: row.ledger_entry_id,
    at: row.at.toISOString(),
    who: row.person ?? (row.rule === null ? row.actor : `the rule “${row.rule}”`),
    about: row.about,
    what: row.what,
    why: row.why,
    undo: row.undo,
    isUndone: row.is_undone,
    change: row.body && {
      id: row.change_id,
      change: row.body,
      state: row.state,
      sentDay: row.sent_day,
      before: row.change_before,
      undoneBy: row.undone_by,
    },
  };
}
