import type { Knex } from 'knex';

/**
 * What an entry of the ledger is about, so that it is found by it: elements by their ids (`campaign:1`, `adGroup:1`, `list:1`,
 * `keyword:1`, `rule:1`), negatives by match type and text (`broad:movie`), and search terms (`term:bee hive`).
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create extension if not exists pg_trgm;

    create function touched_by_change(account integer, body jsonb) returns text[] language sql stable as $$
      with place as (
        select body -> 'place' ->> 'kind' as kind, body -> 'place' ->> 'id' as id
      ), ad_group_of as (
        select g.ad_group_id, g.campaign_id from ad_group g
         where g.account_id = account and g.ad_group_id = coalesce(
           (select id::integer from place where kind = 'adGroup'),
           (select k.ad_group_id from keyword k
             where k.account_id = account and k.keyword_id = (body ->> 'keywordId')::integer))
      )
      select array_remove(array[
        'campaign:' || coalesce(body ->> 'campaignId', (select id from place where kind = 'campaign'),
                                (select campaign_id::text from ad_group_of)),
        'adGroup:' || (select ad_group_id from ad_group_of),
        'list:' || coalesce(body ->> 'listId', (select id from place where kind = 'list')),
        'keyword:' || (body ->> 'keywordId'),
        case when body ->> 'match' is not null then body ->> 'match' || ':' || lower(body ->> 'text') end,
        'term:' || lower(body ->> 'code')
      ], null) $$;

    create function touched_by_undo(account integer, undo jsonb) returns text[] language sql stable as $$
      select array_remove(array[
        'campaign:' || (undo ->> 'campaign'),
        'list:' || coalesce(undo ->> 'list', (select h.list_id from hang_rule h
          where jsonb_typeof(undo -> 'rule') = 'number'
            and h.account_id = account and h.hang_rule_id::text = undo ->> 'rule')),
        case when jsonb_typeof(undo -> 'rule') = 'number' then 'rule:' || (undo ->> 'rule') end,
        case when undo ->> 'kind' = 'term' then 'term:' || (undo ->> 'about') end,
        (select 'term:' || n.about from note n
          where n.account_id = account and n.about_kind = 'term' and n.note_id::text = undo ->> 'note')
      ] || array(select 'term:' || key from jsonb_array_elements_text(
             case when jsonb_typeof(undo -> 'keys') = 'array' then undo -> 'keys' else '[]' end) key), null) $$;

    alter table ledger_entry add column touches text[];

    create function ledger_says_what_it_touches() returns trigger language plpgsql as $$
      begin
        new.touches := nullif(
          coalesce((select touched_by_change(new.account_id, c.body) from change c
                     where c.account_id = new.account_id and c.change_id = new.change_id), '{}')
          || coalesce(touched_by_undo(new.account_id, new.undo), '{}'), '{}');
        return new;
      end $$;
    create trigger ledger_says_what_it_touches before insert on ledger_entry
      for each row execute function ledger_says_what_it_touches();

    alter table ledger_entry disable trigger ledger_is_append_only;
    update ledger_entry e set touches = nullif(
      coalesce((select touched_by_change(e.account_id, c.body) from change c
                 where c.account_id = e.account_id and c.change_id = e.change_id), '{}')
      || coalesce(touched_by_undo(e.account_id, e.undo), '{}'), '{}');
    alter table ledger_entry enable trigger ledger_is_append_only;

    create index ledger_touches on ledger_entry using gin (touches) where touches is not null;
    create index ledger_by_person on ledger_entry (account_id, person_id, ledger_entry_id desc);
    create index ledger_says on ledger_entry using gin (what gin_trgm_ops, why gin_trgm_ops);
    create index change_of_text on change (account_id, lower(body ->> 'text')) where body ->> 'match' is not null;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop index change_of_text;
    drop index ledger_says;
    drop index ledger_by_person;
    drop trigger ledger_says_what_it_touches on ledger_entry;
    drop function ledger_says_what_it_touches;
    alter table ledger_entry drop column touches;
    drop function touched_by_undo;
    drop function touched_by_change;
  `);
}
