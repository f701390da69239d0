import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lists/[list]/health', ({ ask, slug, params }) =>
  ask('viewEntriesHealth', slug, params.list ?? ''),
);
