import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET lanes/where', ({ ask, slug, query }) => ask('whereWouldItGo', slug, query));
