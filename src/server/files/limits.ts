import { SourceFault, type FileError } from '@/core';

/** What a packed file may hold when it is unpacked; one that holds more is no report, or means harm. */
export const LARGEST_UNPACKED = 4 * 1024 ** 3;
const MOST_TIMES = 300;
/** Small files may pack better than that. */
const FREE_BYTES = 64 * 1024 ** 2;

/** @throws SourceFault when so many bytes out of so few are not to be believed */
export function checkRatio(packed: number, unpacked: number): void {
  if (unpacked > LARGEST_UNPACKED || (unpacked > FREE_BYTES && unpacked > MOST_TIMES * packed))
    throw new SourceFault(tooMuch(unpacked));
}

function tooMuch(unpacked: number): FileError {
  const message = `The file unpacks to ${(unpacked / 1e6).toFixed(0)} MB and more, far beyond its size. It was not read. Give the report itself, unpacked.`;
  return { category: 'damaged', message };
}

export function damaged(what: string): FileError {
  return { category: 'damaged', message: `${what} It is cut off or damaged. Fetch it again.` };
}

export const LOCKED: FileError = {
  category: 'encrypted',
  message: 'The file is locked by a password. Save it without one and bring it again.',
};
