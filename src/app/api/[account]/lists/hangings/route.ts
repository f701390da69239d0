import { parseBody, reads } from '@/app/api/_handle/handle';
import { HangingsQuerySchema } from '@/contracts/lists';

/** Asks only; the lists and campaigns may be too many for an address. */
export const POST = reads(async ({ ask, slug, request }) =>
  ask('weighHangings', slug, await parseBody(request, HangingsQuerySchema)),
);
