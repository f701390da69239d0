import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST elsewhere/undo', async ({ ask, slug, personId, body }) => ({
  outcomes: await ask('undoOutside', slug, personId, body.ids, body.forcedBecause),
}));
