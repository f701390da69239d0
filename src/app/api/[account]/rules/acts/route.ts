import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET rules/acts', ({ ask, slug }) => ask('viewActs', slug));
