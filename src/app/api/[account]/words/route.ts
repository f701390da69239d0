import { serve } from '@/app/api/_handle/handle';
import { markWords, viewWordMarks } from '@/server/use-cases/sift/remember';

export const GET = serve('GET words', ({ deps, slug }) => viewWordMarks(deps, slug));
export const POST = serve('POST words', ({ deps, slug, personId, body }) =>
  markWords(deps, slug, personId, body),
);
