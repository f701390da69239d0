import { serve } from '@/app/api/_handle/handle';
import { ownOrigin } from '@/app/api/_handle/own-origin';
import { goToCompany } from '@/server/use-cases/sign-in/company';

export const POST = serve('POST /sign-in/company', async ({ deps, signIns, request, setCookies }) => {
  const { headers } = request;
  const { address, cookies } = await goToCompany({ ...deps, signIns }, ownOrigin(headers), headers);
  setCookies(cookies);
  return { address };
});
