import { nothingRead, SourceFault } from '@/core';
import { pool as poolOf, Promise as PoolPromise } from 'workerpool';
import { NotReceived } from '../receive';
import type { FileReader } from './file-reader';
import type { Said } from './main';

export type Bounds = {
  /** that a file may keep a reader busy */
  seconds: number;
  /** of memory for what a reader makes of a file */
  megabytes: number;
};

/** A workbook of a million rows stays within them. */
const USUAL: Bounds = { seconds: 300, megabytes: 1_024 };

/**
 * Reads files in processes of their own, so that a file which takes all memory or all time takes nothing from anybody else.
 * Such a reader is ended, and the next file gets a new one.
 * @param program the bundled `main` beside this file
 */
export function readerOutside(
  program: string,
  bounds: Bounds = USUAL,
): FileReader & { close(): Promise<void> } {
  const pool = poolOf(program, {
    ...{ workerType: 'process', minWorkers: 1, maxWorkers: 2 },
    forkOpts: { execArgv: [`--max-old-space-size=${bounds.megabytes}`], serialization: 'advanced' },
  });

  async function ask<Name extends keyof FileReader>(
    name: Name,
    ...args: Parameters<FileReader[Name]>
  ): Promise<Awaited<ReturnType<FileReader[Name]>>> {
    const said = await until(
      pool.exec(name, args) as PoolPromise<Said<Awaited<ReturnType<FileReader[Name]>>>>,
    );
    if ('answer' in said) return said.answer;
    if ('fault' in said) throw new SourceFault(said.fault);
    throw new NotReceived(said.notReceived.why, said.notReceived.sizeBytes);
  }

  /** @throws SourceFault where the reader was ended over the file */
  async function until<T>(work: PoolPromise<T>): Promise<T> {
    try {
      return await work.timeout(bounds.seconds * 1_000);
    } catch (error) {
      if (error instanceof PoolPromise.TimeoutError) throw tooMuch(`${bounds.seconds} seconds`);
      const isEnded = error instanceof Error && /terminated unexpectedly/i.test(error.message);
      throw isEnded ? tooMuch(`${bounds.megabytes} MB of memory`) : error;
    }
  }

  return {
    async look(path, how) {
      try {
        return await ask('look', path, how);
      } catch (error) {
        if (error instanceof SourceFault) return { ...nothingRead(), error: error.error };
        throw error;
      }
    },
    unpack: (path, folder) => ask('unpack', path, folder),
    readSheets: (path) => ask('readSheets', path),
    close: async () => void (await pool.terminate(true)),
  };
}

function tooMuch(what: string): SourceFault {
  return new SourceFault({
    category: 'damaged',
    message: `The file takes more than ${what} to read, as no report does. It was not read. Save the table alone, as CSV, and bring that.`,
  });
}
