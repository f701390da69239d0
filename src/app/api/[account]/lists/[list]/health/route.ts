import { reads } from '@/app/api/_handle/handle';

export const GET = reads(({ ask, slug, params }) => ask('viewEntriesHealth', slug, params.list ?? ''));
