import { reads } from '@/app/api/_handle/handle';
import { weighCell } from '@/server/use-cases/view-lists';

export const GET = reads(({ deps, slug, url }) =>
  weighCell(deps, slug, url.searchParams.get('list') ?? '', url.searchParams.get('campaign')),
);
