import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET today/next', ({ ask, slug, query }) => ask('viewNext', slug, query.days));
