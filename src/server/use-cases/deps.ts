import type { Knex } from 'knex';
import type { Hooks } from '../alerts/hooks';
import type { Mailer } from '../alerts/mailer';
import type { Clock } from '../clock';
import type { Snapshots } from '../compute/snapshots';
import type { FileReader } from '../files/reader/file-reader';
import type { IdeaSource } from '../ideas/idea-source';
import type { SignIns } from '../sign-in/sign-ins';
import type { Platform } from '../platform/platform';

/** Work that is done later, by whichever job process comes first. */
export type Task =
  | { name: 'load-report'; accountId: number; reportFileId: number }
  | { name: 'read-report'; accountId: number; reportFileId: number }
  | { name: 'take-back-load'; accountId: number; reportFileId: number; personId: number; undoes?: number }
  | { name: 'note-knots'; accountId: number }
  | { name: 'run-rules'; accountId: number }
  | { name: 'fit-weeks'; accountId: number }
  | { name: 'raise-alerts'; accountId: number }
  | { name: 'deliver'; accountId: number; deliveryId: number }
  | { name: 'send-change-set'; accountId: number; changeSetId: number };

/** What use-cases need of the world. */
export type Deps = {
  db: Knex;
  clock: Clock;
  platform: Platform;
  ideas: IdeaSource;
  /** null where no mail can be sent from here */
  mail: Mailer | null;
  hooks: Hooks;
  /** of Gate Post, as letters and hooks name it: without a slash at its end */
  address: string;
  snapshots: Snapshots;
  /** Adds a task within the transaction, to be done at a time or at once; one that waits already for the same thing is moved. */
  enqueue(db: Knex, task: Task, at?: Date): Promise<void>;
  /** folder of uploaded files */
  files: string;
  /** opens them */
  reader: FileReader;
};

/** What use-cases need that sign people in. */
export type SignInDeps = Pick<Deps, 'db' | 'clock'> & { signIns: SignIns };

/** A request of a person that can not be met. The message says what was not changed, and what to do. */
export class Refusal extends Error {
  override name = 'Refusal';
  constructor(
    message: string,
    readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 429 | 502 = 400,
  ) {
    super(message);
  }

  /** By its name: the web application holds this class once for each of its bundles. */
  static is(error: unknown): error is Refusal {
    return error instanceof Error && error.name === 'Refusal' && 'status' in error;
  }
}
