import type { Knex } from 'knex';

/** What is kept of each table of the mirror: which row it is, what it says, and since when, where the platform knows. */
const KEPT = [
  {
    ...{ table: 'negative', kind: 'negative', id: 'r.negative_id::text', since: dayOf('r.created_at') },
    body: `jsonb_build_object('text', r.text, 'match', r.match, 'place', ${placeOf('r.list_id')})`,
  },
  {
    ...{ table: 'product_exclusion', kind: 'exclusion', id: 'r.product_exclusion_id::text' },
    since: dayOf('r.created_at'),
    body: `jsonb_build_object('code', r.code, 'place', ${placeOf('null')})`,
  },
  {
    ...{ table: 'placement', kind: 'placement', id: 'r.placement_id::text', since: dayOf('r.created_at') },
    body: `jsonb_build_object('listId', r.list_id::text, 'address', r.address)`,
  },
  {
    ...{ table: 'shared_list', kind: 'list', id: 'r.list_id::text', since: 'null::date' },
    body: `jsonb_build_object('listId', r.list_id::text, 'name', r.name, 'holds', r.holds)`,
  },
  {
    ...{ table: 'list_hanging', kind: 'hanging', since: 'r.since' },
    id: `r.list_id || ' ' || coalesce(r.campaign_id::text, 'account')`,
    body: `jsonb_build_object('listId', r.list_id::text, 'campaignId', r.campaign_id::text)`,
  },
];

function dayOf(time: string): string {
  return `(${time} at time zone 'UTC')::date`;
}

function placeOf(listId: string): string {
  return `jsonb_build_object('kind', r.place_kind, 'id', coalesce(r.campaign_id, r.ad_group_id, ${listId})::text)`;
}

/** The account's day in progress. */
const DAY = `coalesce(a.platform_day, ${dayOf('clock_now()')})`;
/** What stands there when a platform is first read, and nobody says since when, was always there. */
const BEGAN = `case when a.platform_account_id is not null and a.structure_revision = 0
                    then date '0001-01-01' else ${DAY} end`;

/**
 * What stood in an account on which days: each negative, product exclusion and placement, each list and where it hung. The
 * database keeps it itself, whichever way the mirror is written.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table standing (
      account_id integer not null references account on delete cascade,
      standing_id bigint not null generated always as identity,
      kind text not null check (kind in ('negative', 'exclusion', 'placement', 'list', 'hanging')),
      element text not null,
      body jsonb not null,
      began_on date not null,
      -- the first day on which it did not stand any more
      ended_on date,
      primary key (account_id, standing_id)
    );
    create index standing_now on standing (account_id, kind, element) where ended_on is null;
    create index standing_ended on standing (account_id, ended_on) where ended_on is not null;
  `);
  for (const { table, kind, id, since, body } of KEPT) {
    const rows = (from: string) =>
      `select r.account_id, '${kind}', ${id}, ${body}, least(coalesce(${since}, ${BEGAN}), ${DAY})
         from ${from} r join account a on a.account_id = r.account_id`;
    const begin = (from: string) =>
      `insert into standing (account_id, kind, element, body, began_on) ${rows(from)}`;
    const end = (from: string) =>
      `update standing s set ended_on = ${DAY} from ${from} r join account a on a.account_id = r.account_id
        where s.account_id = r.account_id and s.kind = '${kind}' and s.element = ${id} and s.ended_on is null`;
    const bodyOf = (row: string) => body.replaceAll(/\br\./g, `${row}.`);
    const idOf = (row: string) => id.replaceAll(/\br\./g, `${row}.`);
    const changed = `(select n.* from is_now n join was w on w.account_id = n.account_id and ${idOf('w')} = ${idOf('n')}
                       where ${bodyOf('w')} is distinct from ${bodyOf('n')})`;
    await db.raw(`
      create function ${table}_begins() returns trigger language plpgsql as $$
        begin ${begin('is_now')}; return null; end $$;
      create function ${table}_ends() returns trigger language plpgsql as $$
        begin ${end('was')}; return null; end $$;
      create function ${table}_changes() returns trigger language plpgsql as $$
        begin
          if not exists ${changed} then return null; end if;
          ${end(changed)};
          ${begin(changed).replace(`coalesce(${since}, ${BEGAN})`, DAY)};
          return null;
        end $$;
      create trigger ${table}_begins after insert on ${table} referencing new table as is_now
        for each statement execute function ${table}_begins();
      create trigger ${table}_ends after delete on ${table} referencing old table as was
        for each statement execute function ${table}_ends();
      create trigger ${table}_changes after update on ${table} referencing old table as was new table as is_now
        for each statement execute function ${table}_changes();
    `);
    await db.raw(`${begin(table)}`);
  }
}

export async function down(db: Knex): Promise<void> {
  for (const { table } of KEPT)
    for (const what of ['begins', 'ends', 'changes'])
      await db.raw(`drop trigger ${table}_${what} on ${table}; drop function ${table}_${what}()`);
  await db.raw('drop table standing');
}
