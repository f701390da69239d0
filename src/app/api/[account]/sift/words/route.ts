import { parseQuery, reads } from '@/app/api/_handle/handle';
import { WordsQuerySchema } from '@/contracts/sift';
import { listWords } from '@/server/use-cases/sift-terms';

export const GET = reads(({ deps, slug, url }) => listWords(deps, slug, parseQuery(url, WordsQuerySchema)));
