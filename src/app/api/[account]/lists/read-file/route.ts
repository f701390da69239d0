import { bodyOf, serve, takesFiles } from '@/app/api/_handle/handle';
import { readListFile } from '@/server/use-cases/lists/list-files';

export const POST = takesFiles(
  serve('POST lists/read-file', ({ request, url }) => readListFile(bodyOf(request, url))),
);
