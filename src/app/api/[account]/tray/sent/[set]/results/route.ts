import { parseId, serve } from '@/app/api/_handle/handle';

export const POST = serve('POST tray/sent/[set]/results', ({ ask, slug, personId, params, body }) =>
  ask('storeResults', slug, personId, parseId(params.set), body.results),
);

export const DELETE = serve(
  'DELETE tray/sent/[set]/results',
  async ({ ask, slug, personId, params, body }) => {
    await ask('takeBackResults', slug, personId, parseId(params.set), body.was);
    return {};
  },
);
