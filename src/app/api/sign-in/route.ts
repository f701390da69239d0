import { serve } from '@/app/api/_handle/handle';
import { signIn } from '@/server/use-cases/sign-in/sign-in';

export const POST = serve('POST /sign-in', async ({ deps, signIns, body, request, setCookies }) => {
  const { is, cookies } = await signIn({ ...deps, signIns }, body, request.headers);
  setCookies(cookies);
  return { is };
});
