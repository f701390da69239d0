import { parseId, writes } from '@/app/api/_handle/handle';
import { undoSent } from '@/server/use-cases/view-ledger';

export const POST = writes(({ deps, slug, personId, params }) =>
  undoSent(deps, slug, personId, parseId(params.change)),
);
