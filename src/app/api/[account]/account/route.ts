import { parseBody, reads, writes } from '@/app/api/_handle/handle';
import { SettingsSchema } from '@/contracts/account';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { viewAccount } from '@/server/use-cases/account/view-account';

export const GET = reads(({ deps, slug }) => viewAccount(deps, slug));

export const PATCH = writes(async ({ deps, slug, personId, request }) =>
  changeSettings(deps, slug, personId, await parseBody(request, SettingsSchema)),
);
