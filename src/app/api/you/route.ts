import { serve } from '@/app/api/_handle/handle';
import { viewYou } from '@/server/use-cases/sign-in/you';

export const GET = serve('GET /you', ({ deps, signIns, personId, request }) =>
  viewYou({ ...deps, signIns }, personId, request.headers),
);
