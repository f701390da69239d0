import { connect } from './connection';
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
};
type Name = keyof typeof MIGRATIONS;

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
