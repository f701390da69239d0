import { parseQuery, reads } from '@/app/api/_handle/handle';
import { TermsQuerySchema } from '@/contracts/sift';

export const GET = reads(({ ask, slug, url }) => ask('findUnseen', slug, parseQuery(url, TermsQuerySchema)));
