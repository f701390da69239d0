import { parseBody, parseQuery, reads, writes } from '@/app/api/_handle/handle';
import { NoteAboutSchema, NoteSchema } from '@/contracts/decisions';
import { viewNotes, writeNote } from '@/server/use-cases/sift/remember';

export const GET = reads(({ deps, slug, url }) => viewNotes(deps, slug, parseQuery(url, NoteAboutSchema)));

export const POST = writes(async ({ deps, slug, personId, request }) =>
  writeNote(deps, slug, personId, await parseBody(request, NoteSchema)),
);
