import { reads, writes } from '@/app/api/_handle/handle';
import { Refusal } from '@/server/use-cases/deps';
import { listLoads, takeIn, toView } from '@/server/use-cases/take-in';

export const GET = reads(async ({ deps, slug }) => ({ files: await listLoads(deps, slug) }));

/** The file itself is the body, so that it is never held in memory as a whole. */
export const PUT = writes(async ({ deps, slug, personId, request, url }) => {
  if (!request.body) throw new Refusal('The file is empty. Nothing was stored.');
  const name = url.searchParams.get('name') ?? 'report';
  const bytes = request.body as unknown as AsyncIterable<Uint8Array>;
  return { file: toView(await takeIn(deps, slug, { name, source: 'file', personId }, bytes)) };
});
