import { parseBody, reads, writes } from '@/app/api/_handle/handle';
import { SavedViewSchema } from '@/contracts/decisions';
import { removeView, saveView, viewSavedViews } from '@/server/use-cases/sift/remember';

export const GET = reads(({ deps, slug }) => viewSavedViews(deps, slug));

export const POST = writes(async ({ deps, slug, personId, request }) =>
  saveView(deps, slug, personId, await parseBody(request, SavedViewSchema)),
);

export const DELETE = writes(({ deps, slug, personId, url }) =>
  removeView(deps, slug, personId, url.searchParams.get('name') ?? ''),
);
