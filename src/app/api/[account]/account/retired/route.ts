import { serve } from '@/app/api/_handle/handle';
import { retireAccount } from '@/server/use-cases/account/change-settings';

export const PUT = serve('PUT account/retired', ({ deps, slug, personId, body }) =>
  retireAccount(deps, slug, personId, body.isRetired),
);
