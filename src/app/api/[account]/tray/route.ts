import { parseBody, reads, writes } from '@/app/api/_handle/handle';
import { DraftRequestSchema, RemoveRequestSchema } from '@/contracts/tray';
import { draftChanges, removeFromTray } from '@/server/use-cases/draft-changes';
import { viewTray } from '@/server/use-cases/view-tray';

export const GET = reads(({ deps, slug, url }) =>
  viewTray(deps, slug, Number(url.searchParams.get('days')) || undefined),
);

export const POST = writes(async ({ deps, slug, personId, request }) => {
  const { changes } = await parseBody(request, DraftRequestSchema);
  return { outcomes: await draftChanges(deps, slug, personId, changes) };
});

export const DELETE = writes(async ({ deps, slug, request }) => {
  const { changeIds } = await parseBody(request, RemoveRequestSchema);
  return { removed: await removeFromTray(deps, slug, changeIds) };
});
