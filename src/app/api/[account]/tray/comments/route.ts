import { serve } from '@/app/api/_handle/handle';
import { commentOnChange } from '@/server/use-cases/tray/comment';

export const POST = serve('POST tray/comments', ({ deps, slug, personId, body }) =>
  commentOnChange(deps, slug, personId, body.changeId, body.text),
);
