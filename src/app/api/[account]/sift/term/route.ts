import { parseQuery, reads } from '@/app/api/_handle/handle';
import { TermQuerySchema } from '@/contracts/hand';

export const GET = reads(({ ask, slug, url }) => ask('viewTerm', slug, parseQuery(url, TermQuerySchema)));
