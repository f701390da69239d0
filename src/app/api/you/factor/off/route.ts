import { serve } from '@/app/api/_handle/handle';
import { dropFactor } from '@/server/use-cases/sign-in/you';

export const POST = serve(
  'POST /you/factor/off',
  async ({ deps, signIns, personId, body, request, setCookies }) =>
    setCookies(await dropFactor({ ...deps, signIns }, personId, body.password, request.headers)),
);
