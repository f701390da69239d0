import { parseBody, reads } from '@/app/api/_handle/handle';
import { EditRequestSchema } from '@/contracts/lists';

/** Asks only: what an edit would come to. */
export const POST = reads(async ({ ask, slug, request }) =>
  ask('previewEdit', slug, (await parseBody(request, EditRequestSchema)).edit),
);
