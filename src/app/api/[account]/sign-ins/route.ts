import { serve } from '@/app/api/_handle/handle';
import { viewSignIns } from '@/server/use-cases/sign-in/you';

export const GET = serve('GET sign-ins', ({ deps, slug }) => viewSignIns(deps, slug));
