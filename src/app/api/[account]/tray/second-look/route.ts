import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET tray/second-look', ({ ask, slug, personId }) =>
  ask('viewSecondLook', slug, personId),
);
export const PUT = serve('PUT tray/second-look', ({ ask, slug, personId, body }) =>
  ask('putUp', slug, personId, body.note),
);
export const DELETE = serve('DELETE tray/second-look', ({ ask, slug, personId }) =>
  ask('takeDown', slug, personId),
);
