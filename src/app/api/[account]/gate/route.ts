import { reads } from '@/app/api/_handle/handle';
import { checkGate } from '@/server/use-cases/check-gate';

export const GET = reads(({ deps, slug, url }) =>
  checkGate(deps, slug, (url.searchParams.get('query') ?? '').slice(0, 1_000)),
);
