import { connect, type Db } from './connection';
import * as accounts from './migrations/001-accounts';
import * as facts from './migrations/002-facts';
import * as changes from './migrations/003-changes';
import * as factsWithoutChecks from './migrations/004-facts-without-checks';
import * as intake from './migrations/005-intake';
import * as sift from './migrations/006-sift';
import * as lists from './migrations/007-lists';
import * as termsByByte from './migrations/008-terms-by-byte';
import * as factsByAccount from './migrations/009-facts-by-account';
import * as accountsOfOnesOwn from './migrations/010-accounts-of-ones-own';
import * as structureAgain from './migrations/011-structure-again';
import * as oneWordAThing from './migrations/012-one-word-a-thing';
import * as brandWords from './migrations/013-brand-words';
import * as stoppedSending from './migrations/014-stopped-sending';
import * as standingVersion from './migrations/015-standing-version';
import * as bytesOfFiles from './migrations/016-bytes-of-files';
import * as packedFacts from './migrations/017-packed-facts';
import * as trustedSending from './migrations/018-trusted-sending';
import * as sheetRecipes from './migrations/019-sheet-recipes';
import * as clock from './migrations/020-clock';
import * as standing from './migrations/021-standing';
import * as ledgerFinding from './migrations/022-ledger-finding';
import * as wordsKnown from './migrations/023-words-known';
import * as research from './migrations/024-research';
import * as leftKnots from './migrations/025-left-knots';
import * as keywordReports from './migrations/026-keyword-reports';
import * as knots from './migrations/027-knots';
import * as campaignPriority from './migrations/028-campaign-priority';
import * as seats from './migrations/029-seats';
import * as members from './migrations/030-members';
import * as exportsOfFiles from './migrations/031-exports';
import * as signIn from './migrations/032-sign-in';
import * as secondLook from './migrations/033-second-look';
import * as dataOfPeople from './migrations/034-data-of-people';
import * as mentions from './migrations/035-mentions';
import * as rules from './migrations/036-rules';
import * as rulesAct from './migrations/037-rules-act';
import * as ruleSets from './migrations/038-rule-sets';
import * as alerts from './migrations/039-alerts';
import * as fittedWeeks from './migrations/040-fitted-weeks';
import * as lanePlans from './migrations/041-lane-plans';

const MIGRATIONS = {
  '001-accounts': accounts,
  '002-facts': facts,
  '003-changes': changes,
  '004-facts-without-checks': factsWithoutChecks,
  '005-intake': intake,
  '006-sift': sift,
  '007-lists': lists,
  '008-terms-by-byte': termsByByte,
  '009-facts-by-account': factsByAccount,
  '010-accounts-of-ones-own': accountsOfOnesOwn,
  '011-structure-again': structureAgain,
  '012-one-word-a-thing': oneWordAThing,
  '013-brand-words': brandWords,
  '014-stopped-sending': stoppedSending,
  '015-standing-version': standingVersion,
  '016-bytes-of-files': bytesOfFiles,
  '017-packed-facts': packedFacts,
  '018-trusted-sending': trustedSending,
  '019-sheet-recipes': sheetRecipes,
  '020-clock': clock,
  '021-standing': standing,
  '022-ledger-finding': ledgerFinding,
  '023-words-known': wordsKnown,
  '024-research': research,
  '025-left-knots': leftKnots,
  '026-keyword-reports': keywordReports,
  '027-knots': knots,
  '028-campaign-priority': campaignPriority,
  '029-seats': seats,
  '030-members': members,
  '031-exports': exportsOfFiles,
  '032-sign-in': signIn,
  '033-second-look': secondLook,
  '034-data-of-people': dataOfPeople,
  '035-mentions': mentions,
  '036-rules': rules,
  '037-rules-act': rulesAct,
  '038-rule-sets': ruleSets,
  '039-alerts': alerts,
  '040-fitted-weeks': fittedWeeks,
  '041-lane-plans': lanePlans,
};
type Name = keyof typeof MIGRATIONS;

/** All migrations that this version knows, in order. */
export const MIGRATION_NAMES: readonly string[] = Object.keys(MIGRATIONS);

/** The migrations that a database has had, in order; none where it is empty. */
export async function migrationsIn(db: Db): Promise<string[]> {
  if (!(await db.schema.hasTable('knex_migrations'))) return [];
  return (await db('knex_migrations').orderBy('id').select('name')).map((row: { name: string }) => row.name);
}

/** Brings the schema up to date; does nothing when it is. */
export async function migrate(url: string): Promise<void> {
  const db = connect(url, 2);
  try {
    await db.migrate.latest({
      migrationSource: {
        getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS) as Name[]),
        getMigrationName: (name: Name) => name,
        getMigration: (name: Name) => Promise.resolve(MIGRATIONS[name]),
      },
    });
  } finally {
    await db.destroy();
  }
}
