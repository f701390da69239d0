import { parseId, serve } from '@/app/api/_handle/handle';
import { removeNote } from '@/server/use-cases/sift/remember';

export const DELETE = serve('DELETE notes/[note]', ({ deps, slug, personId, params }) =>
  removeNote(deps, slug, personId, parseId(params.note)),
);
