import { bodyOf, reads, takesFiles } from '@/app/api/_handle/handle';
import { readListFile } from '@/server/use-cases/lists/list-files';

/** Reads only: nothing of the file is stored. */
export const POST = takesFiles(reads(async ({ request, url }) => readListFile(bodyOf(request, url))));
