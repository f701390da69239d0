import path from 'node:path';
import { createHooks } from './alerts/hooks';
import { createMailer } from './alerts/mailer';
import { clockAt, systemClock } from './clock';
import { createSnapshots } from './compute/snapshots';
import { connect } from './db/connection';
import { readerHere, type FileReader } from './files/reader/file-reader';
import { enqueue } from './jobs/queue';
import { createHttpIdeaSource } from './ideas/http-idea-source';
import { createHttpPlatform } from './platform/http-platform';
import type { Deps } from './use-cases/deps';

/**
 * Everything that use-cases need, from the environment that the start scripts set.
 * @param connections to the database, at most
 * @param reader of files; in this process unless given
 * @param moment at which all is done, where it is not now
 */
export function createDeps({
  connections = 10,
  reader = readerHere,
  moment,
}: { connections?: number; reader?: FileReader; moment?: Date } = {}): Deps {
  const url = process.env.GATEPOST_DATABASE_URL;
  if (!url) throw new Error('GATEPOST_DATABASE_URL must be set; start Gate Post with ./gatepost');
  return {
    db: connect(url, connections, moment),
    clock: moment ? clockAt(moment) : systemClock,
    platform: createHttpPlatform(process.env.GATEPOST_PLATFORM_URL ?? 'http://127.0.0.1:4182'),
    ideas: createHttpIdeaSource(process.env.GATEPOST_IDEAS_URL ?? 'http://127.0.0.1:4183'),
    mail: mailerOf(process.env),
    hooks: createHooks(),
    address: (process.env.GATEPOST_ADDRESS ?? 'http://127.0.0.1:4180').replace(/\/+$/, ''),
    snapshots: createSnapshots(),
    enqueue,
    files: path.join(process.env.GATEPOST_DATA ?? '.data', 'files'),
    reader,
  };
}

/** Mail by a server that is named, or else to the stand-in inbox where that runs. */
function mailerOf({
  GATEPOST_MAIL_URL,
  GATEPOST_MAIL_FROM,
  GATEPOST_INBOX_URL,
  GATEPOST_INBOX_MAIL_URL,
}: NodeJS.ProcessEnv) {
  const from = GATEPOST_MAIL_FROM ?? 'Gate Post <gatepost@localhost>';
  if (GATEPOST_MAIL_URL) return createMailer({ url: GATEPOST_MAIL_URL, from, shownAt: null });
  if (!GATEPOST_INBOX_URL || !GATEPOST_INBOX_MAIL_URL) return null;
  return createMailer({ url: GATEPOST_INBOX_MAIL_URL, from, shownAt: GATEPOST_INBOX_URL });
}
