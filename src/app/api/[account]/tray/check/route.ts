import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET tray/check', ({ ask, slug }) => ask('checkTray', slug));
