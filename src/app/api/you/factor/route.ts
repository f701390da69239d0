import { serve } from '@/app/api/_handle/handle';
import { prepareFactor } from '@/server/use-cases/sign-in/you';

export const POST = serve('POST /you/factor', ({ deps, signIns, personId, body, request }) =>
  prepareFactor({ ...deps, signIns }, personId, body.password, request.headers),
);
