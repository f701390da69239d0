import { parseId, serve } from '@/app/api/_handle/handle';
import { stopSending } from '@/server/use-cases/tray/stop-sending';

export const POST = serve('POST tray/sent/[set]/stop', ({ deps, slug, personId, params }) =>
  stopSending(deps, slug, personId, parseId(params.set)),
);
