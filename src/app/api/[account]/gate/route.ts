import { reads } from '@/app/api/_handle/handle';

export const GET = reads(({ ask, slug, url }) =>
  ask('checkGate', slug, (url.searchParams.get('query') ?? '').slice(0, 1_000)),
);
