import { parseId, writes } from '@/app/api/_handle/handle';

/** A person says that a tray which was handed over has been carried out; or that it was not after all. */
export const POST = writes(({ ask, slug, personId, params }) =>
  ask('sayDone', slug, personId, parseId(params.set)),
);
export const DELETE = writes(({ ask, slug, personId, params }) =>
  ask('unsayDone', slug, personId, parseId(params.set)),
);
