import { serve } from '@/app/api/_handle/handle';
import { changePassword } from '@/server/use-cases/sign-in/you';

export const POST = serve(
  'POST /you/password',
  async ({ deps, signIns, personId, body, request, setCookies }) =>
    setCookies(await changePassword({ ...deps, signIns }, personId, body, request.headers)),
);
