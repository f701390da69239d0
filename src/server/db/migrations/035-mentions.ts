import type { Knex } from 'knex';

/** Notes on lists; and what a person is told by another: a note or a comment that names the person, or the rest of a pass. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table note drop constraint note_about_kind_check;
    alter table note add constraint note_about_kind_check check (about_kind in ('term', 'theme', 'list'));

    create table mention (
      account_id integer not null references account on delete cascade,
      mention_id integer not null generated always as identity,
      -- who is told, and by whom
      person_id integer not null references person,
      by_person integer not null references person,
      about_kind text not null check (about_kind in ('term', 'theme', 'list', 'change', 'pass')),
      -- what leads there: a term, the words of a theme, the id of a list, of a change or of a pass
      about text not null,
      -- how it is called
      label text not null,
      body text not null,
      note_id integer,
      change_comment_id integer,
      at timestamptz not null default clock_now(),
      seen_at timestamptz,
      primary key (account_id, mention_id),
      foreign key (account_id, note_id) references note on delete cascade,
      foreign key (account_id, change_comment_id) references change_comment on delete cascade
    );
    create index mention_of on mention (account_id, person_id, mention_id desc);
    create index mention_note on mention (account_id, note_id);
    create index mention_comment on mention (account_id, change_comment_id);
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table mention;
    delete from note where about_kind = 'list';
    alter table note drop constraint note_about_kind_check;
    alter table note add constraint note_about_kind_check check (about_kind in ('term', 'theme'));
  `);
}
