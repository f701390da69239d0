import type { Knex } from 'knex';

/**
 * The ad groups that hold the exact, the phrase and the broad keywords of a product group, named as people name them: one
 * of them may still wait in the tray. By how much a source may miss its target before
 * a promoted term is stopped there. And terms that are not to be
 * promoted, and exact keywords that go on as they are, are left like knots.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table product_group add column seats jsonb not null default '{}';
    alter table account add column promotion_tolerance double precision not null default 0.01
      constraint account_promotion_tolerance_check check (promotion_tolerance between 0 and 10);
    alter table left_knot drop constraint left_knot_kind_check;
    alter table left_knot add constraint left_knot_kind_check
      check (kind in ('conflict', 'needless', 'misspelt', 'duplicate', 'overlap', 'promotion', 'keyword'));
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table product_group drop column seats;
    alter table account drop column promotion_tolerance;
    delete from left_knot where kind in ('promotion', 'keyword');
    alter table left_knot drop constraint left_knot_kind_check;
    alter table left_knot add constraint left_knot_kind_check
      check (kind in ('conflict', 'needless', 'misspelt', 'duplicate', 'overlap'));
  `);
}
