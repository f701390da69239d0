import { worker } from 'workerpool';
import { SourceFault, type FileError } from '@/core';
import { NotReceived } from '../receive';
import { readerHere, type FileReader } from './file-reader';

/** What a reader says to the process that asked. What a person is to be told is an answer, not an error: errors lose their fields. */
export type Said<Answer> =
  { answer: Answer } | { fault: FileError } | { notReceived: Pick<NotReceived, 'why' | 'sizeBytes'> };

const said = async <Answer>(work: Promise<Answer>): Promise<Said<Answer>> => {
  try {
    return { answer: await work };
  } catch (error) {
    if (error instanceof SourceFault) return { fault: error.error };
    if (error instanceof NotReceived) return { notReceived: { why: error.why, sizeBytes: error.sizeBytes } };
    throw error;
  }
};

// Who asked may be gone before the first word is said; then there is nobody to read for.
process.on('error', () => process.exit(1));

/** The program of a process that reads files for another (`reader-outside`). */
worker({
  look: (...args: Parameters<FileReader['look']>) => said(readerHere.look(...args)),
  unpack: (...args: Parameters<FileReader['unpack']>) => said(readerHere.unpack(...args)),
  readSheets: (...args: Parameters<FileReader['readSheets']>) => said(readerHere.readSheets(...args)),
});
