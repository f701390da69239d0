import { serve } from '@/app/api/_handle/handle';
import { feelWholePulse } from '@/server/use-cases/account/describe-account';

export const GET = serve('GET pulse', ({ deps, slug }) => feelWholePulse(deps, slug));
