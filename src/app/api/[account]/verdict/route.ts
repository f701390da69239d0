import { parseBody, reads, writes } from '@/app/api/_handle/handle';
import { SetVerdictSchema } from '@/contracts/decisions';
import { setVerdict, viewKept } from '@/server/use-cases/sift/set-verdict';

export const GET = reads(({ deps, slug }) => viewKept(deps, slug));

export const POST = writes(async ({ deps, slug, personId, request }) =>
  setVerdict(deps, slug, personId, await parseBody(request, SetVerdictSchema)),
);
