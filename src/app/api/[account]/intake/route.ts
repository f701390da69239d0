import { bodyOf, serve } from '@/app/api/_handle/handle';
import { takeIn, toView, viewIntake } from '@/server/use-cases/intake/take-in';

export const GET = serve('GET intake', ({ deps, slug }) => viewIntake(deps, slug));

/** The file itself is the body, so that it is never held in memory as a whole. */
export const PUT = serve('PUT intake', async ({ deps, slug, personId, query, request, url }) => {
  const { bytes, announced } = bodyOf(request, url);
  const file = { name: query.name, source: 'file', personId, announced } as const;
  return { files: (await takeIn(deps, slug, file, bytes)).map(toView) };
});
