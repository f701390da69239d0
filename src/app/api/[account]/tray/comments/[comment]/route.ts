import { parseId, serve } from '@/app/api/_handle/handle';
import { removeComment } from '@/server/use-cases/tray/comment';

export const DELETE = serve('DELETE tray/comments/[comment]', ({ deps, slug, personId, params }) =>
  removeComment(deps, slug, personId, parseId(params.comment)),
);
