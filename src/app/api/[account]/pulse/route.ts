import { serve } from '@/app/api/_handle/handle';
import { feelPulse } from '@/server/use-cases/account/describe-account';

export const GET = serve('GET pulse', ({ deps, slug }) => feelPulse(deps, slug));
