import { parseBody, writes } from '@/app/api/_handle/handle';
import { DailyFetchSchema } from '@/contracts/intake';
import { setDailyFetch } from '@/server/use-cases/intake/fetch-report';

export const POST = writes(async ({ deps, slug, request }) => {
  await setDailyFetch(deps, slug, (await parseBody(request, DailyFetchSchema)).daily);
});
