import { parseQuery, reads } from '@/app/api/_handle/handle';
import { WordsQuerySchema } from '@/contracts/sift';

export const GET = reads(({ ask, slug, url }) => ask('listWords', slug, parseQuery(url, WordsQuerySchema)));
