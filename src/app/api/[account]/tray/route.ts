import { parseBody, reads, writes } from '@/app/api/_handle/handle';
import { DraftRequestSchema, RemoveRequestSchema } from '@/contracts/tray';

export const GET = reads(({ ask, slug, url }) =>
  ask('viewTray', slug, Number(url.searchParams.get('days')) || undefined),
);

export const POST = writes(async ({ ask, slug, personId, request }) => {
  const { changes } = await parseBody(request, DraftRequestSchema);
  return { outcomes: await ask('draftChanges', slug, personId, changes) };
});

export const DELETE = writes(async ({ ask, slug, request }) => {
  const { changeIds } = await parseBody(request, RemoveRequestSchema);
  return { removed: await ask('removeFromTray', slug, changeIds) };
});
