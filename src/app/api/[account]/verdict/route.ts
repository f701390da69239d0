import { serve } from '@/app/api/_handle/handle';
import { setVerdict, viewKept } from '@/server/use-cases/sift/set-verdict';

export const GET = serve('GET verdict', ({ deps, slug }) => viewKept(deps, slug));
export const POST = serve('POST verdict', ({ deps, slug, personId, body }) =>
  setVerdict(deps, slug, personId, body),
);
