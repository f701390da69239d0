import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST tray/send', async ({ ask, slug, personId, body }) => ({
  setId: await ask('sendTray', slug, personId, body),
}));
