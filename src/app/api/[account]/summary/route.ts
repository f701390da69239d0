import { parseQuery, reads } from '@/app/api/_handle/handle';
import { DaysQuerySchema } from '@/contracts/common';
import { describeAccount } from '@/server/use-cases/account/describe-account';

export const GET = reads(({ deps, slug, url }) =>
  describeAccount(deps, slug, parseQuery(url, DaysQuerySchema).days),
);
