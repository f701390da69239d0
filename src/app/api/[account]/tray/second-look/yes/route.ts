import { serve } from '@/app/api/_handle/handle';

export const PUT = serve('PUT tray/second-look/yes', ({ ask, slug, personId, body }) =>
  ask('sayYes', slug, personId, body.changes),
);
export const DELETE = serve('DELETE tray/second-look/yes', ({ ask, slug, personId }) =>
  ask('takeYesBack', slug, personId),
);
