import { serve } from '@/app/api/_handle/handle';
import { tagWords, viewWordTags } from '@/server/use-cases/sift/remember';

export const GET = serve('GET words', ({ deps, slug }) => viewWordTags(deps, slug));
export const POST = serve('POST words', ({ deps, slug, personId, body }) =>
  tagWords(deps, slug, personId, body),
);
