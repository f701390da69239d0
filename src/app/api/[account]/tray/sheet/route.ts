import { serve, sheet } from '@/app/api/_handle/handle';

export const GET = serve('GET tray/sheet', async ({ ask, slug }) =>
  sheet('tray.csv', await ask('traySheet', slug)),
);
