import { serve } from '@/app/api/_handle/handle';
import { givePass } from '@/server/use-cases/mentions/mentions';

export const POST = serve('POST pass/holder', ({ deps, slug, personId, body }) =>
  givePass(deps, slug, personId, body.to),
);
