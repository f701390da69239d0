import { serve } from '@/app/api/_handle/handle';
import { removeView, saveView, viewSavedViews } from '@/server/use-cases/sift/remember';

export const GET = serve('GET views', ({ deps, slug }) => viewSavedViews(deps, slug));
export const POST = serve('POST views', ({ deps, slug, personId, body }) =>
  saveView(deps, slug, personId, body),
);
export const DELETE = serve('DELETE views', ({ deps, slug, personId, query }) =>
  removeView(deps, slug, personId, query.name),
);
