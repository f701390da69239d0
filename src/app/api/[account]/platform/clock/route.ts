import { parseBody, writes } from '@/app/api/_handle/handle';
import { ClockRequestSchema } from '@/contracts/platform';
import { moveClock } from '@/server/use-cases/intake/fetch-report';

export const POST = writes(async ({ deps, slug, request }) => {
  const { days } = await parseBody(request, ClockRequestSchema);
  return { today: await moveClock(deps, slug, days) };
});
