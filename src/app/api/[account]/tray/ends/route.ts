import { serve } from '@/app/api/_handle/handle';
import { setEndDate } from '@/server/use-cases/tray/end-dates';

export const PUT = serve('PUT tray/ends', ({ deps, slug, body }) =>
  setEndDate(deps, slug, body.changeIds, body.endsOn),
);
