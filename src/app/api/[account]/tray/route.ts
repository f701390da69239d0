import { parseBody, parseQuery, reads, writes } from '@/app/api/_handle/handle';
import { DaysQuerySchema } from '@/contracts/common';
import { DraftRequestSchema, RemoveRequestSchema } from '@/contracts/tray';

export const GET = reads(({ ask, slug, url }) =>
  ask('viewTray', slug, parseQuery(url, DaysQuerySchema).days),
);

export const POST = writes(async ({ ask, slug, personId, request }) => {
  const { changes } = await parseBody(request, DraftRequestSchema);
  return { outcomes: await ask('draftChanges', slug, personId, changes) };
});

export const DELETE = writes(async ({ ask, slug, request }) => {
  const { changeIds } = await parseBody(request, RemoveRequestSchema);
  return { removed: await ask('removeFromTray', slug, changeIds) };
});
