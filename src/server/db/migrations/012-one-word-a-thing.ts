import type { Knex } from 'knex';

/**
 * Words of the glossary: a place is where a negative stands, so what terms name are locations; a mark is a marked row, so
 * words bear tags. The ledger keeps its sentences; only how an entry is undone is said in the new words.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table word_mark rename to word_tag;
    alter table word_tag rename column mark to tag;
    alter table word_tag drop constraint word_mark_mark_check;
    update word_tag set tag = 'location' where tag = 'place';
    alter table word_tag add constraint word_tag_tag_check check (tag in ('neutral', 'location'));
    update saved_view set search = regexp_replace(search, '(^|&)trait=place(&|$)', '\\1trait=location\\2');
    alter table ledger_entry disable trigger ledger_is_append_only;
    update ledger_entry
       set about = 'tag',
           undo = case when undo ->> 'do' = 'mark words' then
             (undo - 'mark') || jsonb_build_object('do', 'tag words', 'tag', to_jsonb(
               case undo ->> 'mark' when 'place' then 'location' else undo ->> 'mark' end)) end
     where about = 'mark';
    alter table ledger_entry enable trigger ledger_is_append_only;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table ledger_entry disable trigger ledger_is_append_only;
    update ledger_entry
       set about = 'mark',
           undo = case when undo ->> 'do' = 'tag words' then
             (undo - 'tag') || jsonb_build_object('do', 'mark words', 'mark', to_jsonb(
               case undo ->> 'tag' when 'location' then 'place' else undo ->> 'tag' end)) end
     where about = 'tag';
    alter table ledger_entry enable trigger ledger_is_append_only;
    update saved_view set search = regexp_replace(search, '(^|&)trait=location(&|$)', '\\1trait=place\\2');
    alter table word_tag drop constraint word_tag_tag_check;
    update word_tag set tag = 'place' where tag = 'location';
    alter table word_tag rename column tag to mark;
    alter table word_tag rename to word_mark;
    alter table word_mark add constraint word_mark_mark_check check (mark in ('neutral', 'place'));
  `);
}
