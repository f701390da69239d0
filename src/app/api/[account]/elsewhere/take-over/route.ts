import { parseBody, writes } from '@/app/api/_handle/handle';
import { OutsideSchema } from '@/contracts/lists';
import { takeOverOutside } from '@/server/use-cases/tray/elsewhere/settle-outside';

export const POST = writes(async ({ deps, slug, personId, request }) =>
  takeOverOutside(deps, slug, personId, (await parseBody(request, OutsideSchema)).ids),
);
