import { serve } from '@/app/api/_handle/handle';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { viewAccount } from '@/server/use-cases/account/view-account';

export const GET = serve('GET account', ({ deps, slug, personId }) => viewAccount(deps, slug, personId));
export const PATCH = serve('PATCH account', ({ deps, slug, personId, body }) =>
  changeSettings(deps, slug, personId, body),
);
