import { parseQuery, reads } from '@/app/api/_handle/handle';
import { KeywordsQuerySchema } from '@/contracts/hand';

export const GET = reads(({ ask, slug, url }) =>
  ask('viewKeywords', slug, parseQuery(url, KeywordsQuerySchema)),
);
