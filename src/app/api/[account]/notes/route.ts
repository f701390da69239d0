import { serve } from '@/app/api/_handle/handle';
import { viewNotes, writeNote } from '@/server/use-cases/sift/remember';

export const GET = serve('GET notes', ({ deps, slug, query }) => viewNotes(deps, slug, query));
export const POST = serve('POST notes', ({ deps, slug, personId, body }) =>
  writeNote(deps, slug, personId, body),
);
