import { connect } from '@/server/db/connection';
import { migrate } from '@/server/db/migrate';
import { obstaclesToSharding, readCatalogue, shardingStatements } from '@/server/db/sharding';
import { startDatabase } from './postgres';
import { Remedy } from './say';
import { databaseUrl, type Settings } from './settings';

/** Prints the statements that spread the tables of the database over machines by account. They are not run. */
export async function printSharding(settings: Settings): Promise<void> {
  await startDatabase(settings);
  const url = databaseUrl(settings);
  await migrate(url);
  const db = connect(url, 1);
  try {
    const catalogue = await readCatalogue(db);
    const obstacles = obstaclesToSharding(catalogue);
    if (obstacles.length > 0) throw new Remedy(`The tables can not be spread:\n${obstacles.join('\n')}`);
    console.log(shardingStatements(catalogue).join('\n'));
  } finally {
    await db.destroy();
  }
}
