import { writes } from '@/app/api/_handle/handle';

export const POST = writes(async ({ ask, slug, personId }) => ({
  setId: await ask('sendTray', slug, personId),
}));
