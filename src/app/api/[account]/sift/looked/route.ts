import { parseBody, writes } from '@/app/api/_handle/handle';
import { LookedAtSchema } from '@/contracts/decisions';
import { lookAt } from '@/server/use-cases/sift/remember';

export const POST = writes(async ({ deps, slug, request }) =>
  lookAt(deps, slug, (await parseBody(request, LookedAtSchema)).terms),
);
