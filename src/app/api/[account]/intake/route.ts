import { reads, writes } from '@/app/api/_handle/handle';
import { Refusal } from '@/server/use-cases/deps';
import { takeIn, toView, viewIntake } from '@/server/use-cases/take-in';

export const GET = reads(({ deps, slug }) => viewIntake(deps, slug));

/** The file itself is the body, so that it is never held in memory as a whole. */
export const PUT = writes(async ({ deps, slug, personId, request, url }) => {
  if (!request.body) throw new Refusal('The file is empty. Nothing was stored.');
  const name = url.searchParams.get('name') ?? 'report';
  const bytes = request.body as unknown as AsyncIterable<Uint8Array>;
  const files = await takeIn(deps, slug, { name, source: 'file', personId }, bytes);
  return { files: files.map(toView) };
});
