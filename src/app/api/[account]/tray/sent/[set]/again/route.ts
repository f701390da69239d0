import { parseId, writes } from '@/app/api/_handle/handle';
import { sendAgain } from '@/server/use-cases/tray/send-tray';

export const POST = writes(({ deps, slug, params }) => sendAgain(deps, slug, parseId(params.set)));
