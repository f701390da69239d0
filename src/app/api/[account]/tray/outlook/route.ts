import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET tray/outlook', ({ ask, slug, query }) => ask('foreseeTray', slug, query.days));
