import { parseId, serve } from '@/app/api/_handle/handle';

export const GET = serve('GET tray/sent/[set]/rows', ({ ask, slug, params }) =>
  ask('firstRowsOf', slug, parseId(params.set)),
);
