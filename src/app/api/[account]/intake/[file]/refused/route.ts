import { parseId, serve, sheet } from '@/app/api/_handle/handle';
import { refusedSheet } from '@/server/use-cases/intake/take-in';

export const GET = serve('GET intake/[file]/refused', async ({ deps, slug, params }) =>
  sheet('refused rows.csv', await refusedSheet(deps, slug, parseId(params.file))),
);
