import { writes } from '@/app/api/_handle/handle';
import { sendTray } from '@/server/use-cases/send-tray';

export const POST = writes(async ({ deps, slug, personId }) => ({
  setId: await sendTray(deps, slug, personId),
}));
