import type { Db } from '../../db/connection';

/** An idea as a source gives it; figures that it does not know are null. */
export type GivenIdea = {
  /** normalised (rules 1.1), and not empty */
  key: string;
  /** searches a month */
  volume: number | null;
  volumeFrom: number | null;
  volumeTo: number | null;
  openingBidMicros: number | null;
  /** 0 to 1 */
  relatedness: number | null;
};

export type IdeaVerdict = 'kept' | 'dropped';

/** An idea of a sheet, with all sources that gave it. */
export type StoredIdea = GivenIdea & { sources: number[] };

/** What was decided on the ideas of a sheet, by their texts. */
export async function loadVerdicts(
  db: Db,
  accountId: number,
  sheetId: number,
): Promise<ReadonlyMap<string, IdeaVerdict>> {
  const rows: { key: string; verdict: IdeaVerdict }[] = await db('research_idea')
    .where({ account_id: accountId, research_sheet_id: sheetId })
    .whereNotNull('verdict')
    .select('key', 'verdict');
  return new Map(rows.map(({ key, verdict }) => [key, verdict]));
}

/** The ideas of a sheet by their texts, without those of sources that were taken out; what was decided on them is loaded apart, for it changes more often. */
export async function loadIdeas(db: Db, accountId: number, sheetId: number): Promise<StoredIdea[]> {
  const live: { research_source_id: number }[] = await db('research_source')
    .where({ account_id: accountId, research_sheet_id: sheetId, is_out: false })
    .select('research_source_id');
  const ids = live.map((row) => row.research_source_id);
  const rows: Row[] = await db('research_idea')
    .where({ account_id: accountId, research_sheet_id: sheetId })
    .whereRaw('sources && cast(? as integer[])', [ids])
    .orderBy('key')
    .select('key', 'volume', 'volume_from', 'volume_to', 'opening_bid_micros', 'relatedness', 'sources');
  const isLive = new Set(ids);
  return rows.map((row) => ({
    ...{ key: row.key, volume: row.volume, volumeFrom: row.volume_from, volumeTo: row.volume_to },
    ...{ openingBidMicros: row.opening_bid_micros, relatedness: row.relatedness },
    sources: row.sources.filter((id) => isLive.has(id)),
  }));
}

type Row = {
  key: string;
  volume: number | null;
  volume_from: number | null;
  volume_to: number | null;
  opening_bid_micros: number | null;
  relatedness: number | null;
  sources: number[];
};

/** Ideas that come at once from which on the table is looked at anew. */
const MANY = 1_000;

/**
 * Adds what a source gave. One that is there already gets the source, and the figures that it gives where it gives some.
 * @param ideas each text once
 * @returns how many were not there
 */
export async function mergeIdeas(
  db: Db,
  accountId: number,
  sheetId: number,
  sourceId: number,
  ideas: readonly GivenIdea[],
): Promise<number> {
  const column = <Key extends keyof GivenIdea>(name: Key) => ideas.map((idea) => idea[name]);
  const { rows } = await db.raw<{ rows: { added: number }[] }>(
    `with merged as (
       insert into research_idea as i (account_id, research_sheet_id, key, volume, volume_from, volume_to,
                                       opening_bid_micros, relatedness, sources)
       select :account, :sheet, g.*, array[cast(:source as integer)]
         from unnest(cast(:key as text[]), cast(:volume as bigint[]), cast(:volumeFrom as bigint[]),
                     cast(:volumeTo as bigint[]), cast(:openingBidMicros as bigint[]), cast(:relatedness as real[])) as g
       on conflict (account_id, research_sheet_id, key) do update set
         volume = case when ${tells('excluded')} then excluded.volume else i.volume end,
         volume_from = case when ${tells('excluded')} then excluded.volume_from else i.volume_from end,
         volume_to = case when ${tells('excluded')} then excluded.volume_to else i.volume_to end,
         opening_bid_micros = coalesce(excluded.opening_bid_micros, i.opening_bid_micros),
         relatedness = greatest(excluded.relatedness, i.relatedness),
         sources = i.sources || excluded.sources
       returning xmax = 0 as is_new
     )
     select count(*) filter (where is_new)::integer as added from merged`,
    {
      ...{ account: accountId, sheet: sheetId, source: sourceId },
      ...{ key: column('key'), volume: column('volume'), volumeFrom: column('volumeFrom') },
      ...{ volumeTo: column('volumeTo'), openingBidMicros: column('openingBidMicros') },
      relatedness: column('relatedness'),
    },
  );
  // The planner must not take a sheet that has just been filled for an empty one.
  if (ideas.length >= MANY) await db.raw('analyze research_idea');
  return rows[0]!.added;
}

/** Whether a row says anything of how often it is searched. */
const tells = (row: string) => `(${row}.volume is not null or ${row}.volume_from is not null)`;

/**
 * Sets what was decided on some ideas.
 * @param verdict null opens them again
 * @returns what each had before, so that it can be set back
 */
export async function setIdeaVerdicts(
  db: Db,
  accountId: number,
  sheetId: number,
  personId: number,
  keys: readonly string[],
  verdict: IdeaVerdict | null,
): Promise<{ key: string; was: IdeaVerdict | null }[]> {
  const { rows } = await db.raw<{ rows: { key: string; was: IdeaVerdict | null }[] }>(
    `update research_idea i set verdict = :verdict, decided_by = :person
       from (select o.key, o.verdict as was
               from research_idea o
               join unnest(cast(:keys as text[])) as asked (key) on asked.key = o.key
              where o.account_id = :account and o.research_sheet_id = :sheet
                and o.verdict is distinct from :verdict
              order by o.key for update of o) b
      where i.account_id = :account and i.research_sheet_id = :sheet and i.key = b.key
     returning i.key, b.was`,
    { account: accountId, sheet: sheetId, person: personId, keys: [...keys], verdict },
  );
  return rows;
}

/** The groups that people put ideas of a sheet in, by the texts of the ideas. */
export async function loadGroupNames(
  db: Db,
  accountId: number,
  sheetId: number,
): Promise<ReadonlyMap<string, string>> {
  const rows: { key: string; group_name: string }[] = await db('research_idea')
    .where({ account_id: accountId, research_sheet_id: sheetId })
    .whereNotNull('group_name')
    .select('key', 'group_name');
  return new Map(rows.map((row) => [row.key, row.group_name]));
}

/**
 * Puts ideas into groups.
 * @param to the group of each idea by its text; null for none
 * @returns the group of those that are in another now, as it was
 */
export async function setGroups(
  db: Db,
  accountId: number,
  sheetId: number,
  to: ReadonlyMap<string, string | null>,
): Promise<{ key: string; was: string | null }[]> {
  const { rows } = await db.raw<{ rows: { key: string; was: string | null }[] }>(
    `update research_idea i set group_name = t.name
       from (select b.key, b.group_name as was, g.name
               from research_idea b
               join unnest(cast(:keys as text[]), cast(:names as text[])) as g (key, name) using (key)
              where b.account_id = :account and b.research_sheet_id = :sheet
              order by b.key for update of b) t
      where i.account_id = :account and i.research_sheet_id = :sheet and i.key = t.key
        and i.group_name is distinct from t.name
     returning i.key, t.was`,
    { account: accountId, sheet: sheetId, keys: [...to.keys()], names: [...to.values()] },
  );
  return rows;
}

/**
 * How often texts are searched for in a month, as the newest source of any sheet tells; those of which none tells are left out.
 * @param texts all that sheets hold unless given
 */
export async function listSearches(
  db: Db,
  accountId: number,
  texts?: readonly string[],
): Promise<ReadonlyMap<string, number>> {
  if (texts?.length === 0) return new Map();
  const { rows } = await db.raw<{ rows: { key: string; searches: number }[] }>(
    `select distinct on (key) key,
            coalesce(volume, (volume_from + coalesce(volume_to, volume_from)) / 2)::double precision as searches
       from research_idea
      where account_id = :account and (cast(:texts as text[]) is null or key = any(cast(:texts as text[])))
        and (volume is not null or volume_from is not null)
      order by key, research_sheet_id desc`,
    { account: accountId, texts: texts ? [...new Set(texts)] : null },
  );
  return new Map(rows.map(({ key, searches }) => [key, searches]));
}
