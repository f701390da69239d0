import { reads, sheet } from '@/app/api/_handle/handle';

export const GET = reads(async ({ ask, slug }) => sheet('tray.csv', await ask('traySheet', slug)));
