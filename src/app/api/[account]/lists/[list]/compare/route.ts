import { reads } from '@/app/api/_handle/handle';

export const GET = reads(({ ask, slug, params, url }) =>
  ask('compareLists', slug, params.list ?? '', url.searchParams.get('with') ?? ''),
);
