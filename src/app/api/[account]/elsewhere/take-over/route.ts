import { serve } from '@/app/api/_handle/handle';
import { takeOverOutside } from '@/server/use-cases/tray/elsewhere/settle-outside';

export const POST = serve('POST elsewhere/take-over', ({ deps, slug, personId, body }) =>
  takeOverOutside(deps, slug, personId, body.ids),
);
