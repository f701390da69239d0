import { parseId, writes } from '@/app/api/_handle/handle';

export const POST = writes(({ ask, slug, personId, params }) =>
  ask('undoEntry', slug, personId, parseId(params.entry)),
);
