import { reads } from '@/app/api/_handle/handle';
import { Refusal } from '@/server/use-cases/deps';
import { readListFile } from '@/server/use-cases/lists/list-files';

/** Reads only: nothing of the file is stored. */
export const POST = reads(async ({ request }) => {
  if (!request.body) throw new Refusal('The file is empty. Nothing was taken.');
  return readListFile(request.body as unknown as AsyncIterable<Uint8Array>);
});
