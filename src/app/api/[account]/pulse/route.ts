import { reads } from '@/app/api/_handle/handle';
import { feelPulse } from '@/server/use-cases/sift/remember';

export const GET = reads(({ deps, slug }) => feelPulse(deps, slug));
