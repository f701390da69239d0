import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET today/ending', ({ ask, slug }) => ask('viewEnding', slug));
