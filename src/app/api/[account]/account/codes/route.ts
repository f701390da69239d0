import { parseQuery, reads } from '@/app/api/_handle/handle';
import { PatternQuerySchema } from '@/contracts/account';
import { findCodes } from '@/server/use-cases/account/view-account';

export const GET = reads(({ deps, slug, url }) =>
  findCodes(deps, slug, parseQuery(url, PatternQuerySchema).pattern),
);
