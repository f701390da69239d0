import { bodyOf, reads, takesFiles, writes } from '@/app/api/_handle/handle';
import { takeIn, toView, viewIntake } from '@/server/use-cases/intake/take-in';

export const GET = takesFiles(reads(({ deps, slug }) => viewIntake(deps, slug)));

/** The file itself is the body, so that it is never held in memory as a whole. */
export const PUT = takesFiles(
  writes(async ({ deps, slug, personId, request, url }) => {
    const { bytes, announced } = bodyOf(request, url);
    const name = url.searchParams.get('name') ?? 'report';
    const files = await takeIn(deps, slug, { name, source: 'file', personId, announced }, bytes);
    return { files: files.map(toView) };
  }),
);
