import { serve } from '@/app/api/_handle/handle';
import { takeLink } from '@/server/use-cases/sign-in/links';
import { signIn } from '@/server/use-cases/sign-in/sign-in';

export const POST = serve('POST /sign-in/link', async ({ deps, signIns, body, request, setCookies }) => {
  await takeLink({ ...deps, signIns }, body);
  const { email, password } = body;
  if (password === null) return { is: 'set' as const };
  const { is, cookies } = await signIn({ ...deps, signIns }, { email, password }, request.headers);
  setCookies(cookies);
  return { is };
});
