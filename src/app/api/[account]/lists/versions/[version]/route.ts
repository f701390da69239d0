import { parseId, writes } from '@/app/api/_handle/handle';
import { takeOverVersion } from '@/server/use-cases/lists/history';

/** Takes over what somebody else changed. */
export const POST = writes(({ deps, slug, personId, params }) =>
  takeOverVersion(deps, slug, personId, parseId(params.version)),
);
