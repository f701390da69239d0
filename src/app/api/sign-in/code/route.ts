import { serve } from '@/app/api/_handle/handle';
import { giveCode } from '@/server/use-cases/sign-in/sign-in';

export const POST = serve('POST /sign-in/code', async ({ deps, signIns, body, request, setCookies }) => {
  const { is, cookies } = await giveCode({ ...deps, signIns }, body.code, request.headers);
  setCookies(cookies);
  return { is };
});
