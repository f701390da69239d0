import { parseId, serve } from '@/app/api/_handle/handle';
import { sendAgain } from '@/server/use-cases/tray/send-tray';

export const POST = serve('POST tray/sent/[set]/again', ({ deps, slug, params }) =>
  sendAgain(deps, slug, parseId(params.set)),
);
