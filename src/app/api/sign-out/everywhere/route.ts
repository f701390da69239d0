import { serve } from '@/app/api/_handle/handle';
import { signOutEverywhere } from '@/server/use-cases/sign-in/sign-in';

export const POST = serve('POST /sign-out/everywhere', async ({ deps, signIns, personId }) => {
  if (personId !== null) await signOutEverywhere({ ...deps, signIns }, personId);
});
