import { reads } from '@/app/api/_handle/handle';

export const GET = reads(({ ask, slug, url }) =>
  ask('viewCellBefore', slug, url.searchParams.get('list') ?? '', url.searchParams.get('campaign') ?? ''),
);
