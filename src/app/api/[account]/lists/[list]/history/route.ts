import { reads } from '@/app/api/_handle/handle';

export const GET = reads(({ ask, slug, params }) => ask('viewHistory', slug, params.list ?? ''));
