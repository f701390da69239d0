import { saved, serve } from '@/app/api/_handle/handle';
import { Refusal } from '@/server/use-cases/deps';
import { savePersonData } from '@/server/use-cases/account/data-of-people';

export const GET = serve('GET /you/data', async ({ deps, personId }) => {
  if (personId === null) throw new Refusal('Nobody is known here yet.', 404);
  return saved(await savePersonData(deps, personId));
});
