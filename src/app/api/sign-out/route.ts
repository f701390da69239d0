import { serve } from '@/app/api/_handle/handle';
import { signOut } from '@/server/use-cases/sign-in/sign-in';

export const POST = serve('POST /sign-out', async ({ deps, signIns, request, setCookies }) =>
  setCookies(await signOut({ ...deps, signIns }, request.headers)),
);
