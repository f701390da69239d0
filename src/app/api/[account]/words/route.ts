import { parseBody, reads, writes } from '@/app/api/_handle/handle';
import { WordMarkSchema } from '@/contracts/decisions';
import { markWords, viewWordMarks } from '@/server/use-cases/sift/remember';

export const GET = reads(({ deps, slug }) => viewWordMarks(deps, slug));

export const POST = writes(async ({ deps, slug, personId, request }) =>
  markWords(deps, slug, personId, await parseBody(request, WordMarkSchema)),
);
