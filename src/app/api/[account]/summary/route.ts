import { reads } from '@/app/api/_handle/handle';
import { describeAccount } from '@/server/use-cases/describe-account';

export const GET = reads(({ deps, slug, url }) =>
  describeAccount(deps, slug, Number(url.searchParams.get('days')) || undefined),
);
