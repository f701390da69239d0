import { serve } from '@/app/api/_handle/handle';
import { confirmFactor } from '@/server/use-cases/sign-in/you';

export const POST = serve(
  'POST /you/factor/code',
  async ({ deps, signIns, personId, body, request, setCookies }) =>
    setCookies(await confirmFactor({ ...deps, signIns }, personId, body.code, request.headers)),
);
