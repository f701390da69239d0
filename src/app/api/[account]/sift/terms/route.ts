import { parseQuery, reads } from '@/app/api/_handle/handle';
import { TermsQuerySchema } from '@/contracts/sift';
import { listTerms } from '@/server/use-cases/sift-terms';

export const GET = reads(({ deps, slug, url }) => listTerms(deps, slug, parseQuery(url, TermsQuerySchema)));
