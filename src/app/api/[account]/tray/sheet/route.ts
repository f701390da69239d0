import { reads, sheet } from '@/app/api/_handle/handle';
import { traySheet } from '@/server/use-cases/view-tray';

export const GET = reads(async ({ deps, slug }) => sheet('tray.csv', await traySheet(deps, slug)));
