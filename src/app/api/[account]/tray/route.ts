import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET tray', ({ ask, slug, query }) =>
  ask('viewTray', slug, query.days, query.known),
);
export const POST = serve('POST tray', async ({ ask, slug, personId, body }) => ({
  outcomes: await ask('draftChanges', slug, personId, body.changes),
}));
export const DELETE = serve('DELETE tray', async ({ ask, slug, body }) => ({
  removed: await ask('removeFromTray', slug, body.changeIds),
}));
