import type { Knex } from 'knex';

/**
 * What each person may do in an account. Until now everybody might do everything everywhere, unless retired: who was
 * retired has no role, and an entry of the ledger that takes a retirement back gives the role back.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table member (
      account_id integer not null references account on delete cascade,
      person_id integer not null references person,
      role text not null check (role in ('none', 'look', 'prepare', 'send', 'own')),
      primary key (account_id, person_id)
    );
    insert into member
      select account_id, person_id, case when person.retired_at is null then 'own' else 'none' end
      from account cross join person;

    alter table ledger_entry disable trigger ledger_is_append_only;
    update ledger_entry
      set undo = jsonb_build_object('do', 'set role', 'person', undo->'person',
        'role', case when (undo->>'isRetired')::boolean then 'none' else 'own' end)
      where undo->>'do' = 'retire person';
    alter table ledger_entry enable trigger ledger_is_append_only;
    alter table person drop column retired_at;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table person add column retired_at timestamptz;
    update person set retired_at = now()
      where not exists (select from member where member.person_id = person.person_id and role <> 'none');
    alter table ledger_entry disable trigger ledger_is_append_only;
    update ledger_entry
      set undo = jsonb_build_object('do', 'retire person', 'person', undo->'person',
        'isRetired', undo->>'role' = 'none')
      where undo->>'do' = 'set role';
    alter table ledger_entry enable trigger ledger_is_append_only;
    drop table member;
  `);
}
