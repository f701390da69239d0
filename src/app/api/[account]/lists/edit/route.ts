import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST lists/edit', ({ ask, slug, personId, body }) =>
  ask('draftEdit', slug, personId, body.edit, body.forcedBecause),
);
