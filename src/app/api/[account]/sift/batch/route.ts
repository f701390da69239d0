import { parseBody, reads } from '@/app/api/_handle/handle';
import { BatchSchema } from '@/contracts/decisions';

/** Weighs only: what is marked can be too much for an address. */
export const POST = reads(async ({ ask, slug, request }) =>
  ask('weighBatch', slug, await parseBody(request, BatchSchema)),
);
