import { serve } from '@/app/api/_handle/handle';
import { describeAccount } from '@/server/use-cases/account/describe-account';

export const GET = serve('GET summary', ({ deps, slug, query }) => describeAccount(deps, slug, query.days));
