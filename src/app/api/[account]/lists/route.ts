import { reads } from '@/app/api/_handle/handle';
import { viewLists } from '@/server/use-cases/view-lists';

export const GET = reads(({ deps, slug }) => viewLists(deps, slug));
