import { parseQuery, reads } from '@/app/api/_handle/handle';
import { PatternQuerySchema } from '@/contracts/account';

export const GET = reads(({ ask, slug, url }) =>
  ask('findCodes', slug, parseQuery(url, PatternQuerySchema).pattern),
);
