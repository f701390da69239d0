import { serve } from '@/app/api/_handle/handle';
import { endSession } from '@/server/use-cases/sign-in/you';

export const POST = serve(
  'POST /you/sessions/[session]/end',
  ({ deps, signIns, personId, params, request }) =>
    endSession({ ...deps, signIns }, personId, params.session!, request.headers),
);
