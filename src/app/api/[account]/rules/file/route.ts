import { saved, serve } from '@/app/api/_handle/handle';
import { bringRules, writeRuleFile } from '@/server/use-cases/rules/rule-files';

export const GET = serve('GET rules/file', async ({ deps, slug, query }) =>
  saved(await writeRuleFile(deps, slug, query.rules)),
);
export const POST = serve('POST rules/file', ({ deps, slug, personId, body }) =>
  bringRules(deps, slug, personId, body.text),
);
