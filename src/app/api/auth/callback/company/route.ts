import { lettingIn } from '@/app/api/_handle/handle';
import { ownOrigin } from '@/app/api/_handle/own-origin';
import { comeFromCompany } from '@/server/use-cases/sign-in/company';
import { webDeps, webSignIns } from '@/server/web';

/** Where the company leads back to, with a code that is asked for nowhere else. */
export const GET = lettingIn(async (request) => {
  const deps = { ...webDeps(), signIns: webSignIns() };
  const cookies = await comeFromCompany(deps, ownOrigin(request.headers), request);
  const answer = new Response(null, {
    status: 303,
    headers: { location: cookies ? '/' : '/sign-in?unknown=company' },
  });
  for (const cookie of cookies ?? []) answer.headers.append('set-cookie', cookie);
  return answer;
});
