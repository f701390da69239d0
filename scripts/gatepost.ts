import { rmSync } from 'node:fs';
import path from 'node:path';
import { createInterface } from 'node:readline/promises';
import { backUp, restore } from './steps/backup';
import { requireChromium } from './steps/programs';
import { Remedy, step } from './steps/say';
import { startAll, stopAll, stopProcesses } from './steps/services';
import { readSettings, type Settings } from './steps/settings';
import { loadDemo } from './steps/demo';
import { runDevelopment } from './steps/develop';
import { printLink } from './steps/link';
import { printSharding } from './steps/sharding';
import { runTests } from './steps/test';

const HELP = `./gatepost demo          install what is missing and run everything with demo data
./gatepost start         the same without demo data
./gatepost stop          end what was started
./gatepost link NAME      print a link by which a person sets address and password, the first time or anew
./gatepost backup FILE   write the database and the files that were brought into one file
./gatepost restore FILE  put such a file into an empty data folder
./gatepost reset         throw all data away (asks first; --yes does not ask)
./gatepost sharding      print the statements that spread the tables over machines, see docs/growing.md
./gatepost test          all checks and tests
./gatepost dev           for developers: the web application reloads as its sources change

Settings: GATEPOST_PORT (4180), GATEPOST_DB_PORT (4181), GATEPOST_PLATFORM_PORT (4182),
          GATEPOST_IDEAS_PORT (4183), GATEPOST_INBOX_PORT (4184), GATEPOST_INBOX_MAIL_PORT (4185),
          GATEPOST_HOST (127.0.0.1), GATEPOST_DATA (.data),
          GATEPOST_DEMO_SCALE (1), GATEPOST_DEMO_SEED (0), GATEPOST_DEMO_PAST (yes)`;

async function main([command = 'help', ...flags]: string[]): Promise<void> {
  const settings = readSettings();
  switch (command) {
    case 'demo':
      requireChromium();
      process.env.GATEPOST_OPEN = '1'; // its people are made up: who one is, is chosen in the top strip
      await startAll(settings, () => loadDemo(settings));
      return sayWhere(settings);
    case 'start':
      await startAll(settings);
      return sayWhere(settings);
    case 'stop':
      return stopAll(settings);
    case 'link':
      return printLink(settings, flags.join(' '));
    case 'backup': {
      const file = requireFile(flags);
      await backUp(settings, file);
      return step(`The backup is in ${file}. Keep it on another machine.`);
    }
    case 'restore':
      await stopProcesses(settings);
      await restore(settings, requireFile(flags));
      return step('Restored. “./gatepost start” runs it.');
    case 'reset':
      if (!flags.includes('--yes') && !(await confirmed(settings.data)))
        return console.log('Nothing was changed.');
      await stopAll(settings);
      for (const entry of ['pg', 'log', 'run', 'files', 'database-password', 'sign-in-secret']) {
        rmSync(path.join(settings.data, entry), { recursive: true, force: true });
      }
      return step('All data is gone. “./gatepost demo” begins anew.');
    case 'sharding':
      return printSharding(settings);
    case 'test':
      process.exitCode = await runTests(flags);
      return;
    case 'dev':
      return runDevelopment(settings);
    default:
      console.log(HELP);
      process.exitCode = command === 'help' ? 0 : 2;
  }
}

function sayWhere({ host, webPort, inboxPort }: Settings): void {
  console.log(`Gate Post is at http://${host}:${webPort}`);
  if (!process.env.GATEPOST_MAIL_URL)
    console.log(`Letters go to the stand-in inbox, which shows them at http://127.0.0.1:${inboxPort}`);
}

function requireFile([file]: readonly string[]): string {
  if (file === undefined || file.startsWith('-'))
    throw new Remedy(
      'Name the file: “./gatepost backup FILE” or “./gatepost restore FILE”. Nothing was changed.',
    );
  return file;
}

async function confirmed(data: string): Promise<boolean> {
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await ask.question(
    `This removes the database, all loads and decisions in ${data}. Type “reset” to go on: `,
  );
  ask.close();
  return answer.trim() === 'reset';
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof Remedy ? error.message : error);
  process.exitCode = 1;
});
