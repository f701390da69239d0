import type { Knex } from 'knex';

/**
 * The ad groups that hold the exact, the phrase and the broad keywords of a product group, named as people name them: one
 * of them may still wait in the tray. And by how much a source may miss its target before a promoted term is stopped there.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table product_group add column seats jsonb not null default '{}';
    alter table account add column promotion_tolerance double precision not null default 0.01
      constraint account_promotion_tolerance_check check (promotion_tolerance between 0 and 10);
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table product_group drop column seats;
    alter table account drop column promotion_tolerance;
  `);
}
