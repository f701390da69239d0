import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/themes', ({ ask, slug, query }) => ask('listThemes', slug, query));
