import { parseQuery, reads } from '@/app/api/_handle/handle';
import { ChoiceQuerySchema } from '@/contracts/sift';
import { weighChoice } from '@/server/use-cases/weigh-choice';

export const GET = reads(({ deps, slug, url }) => {
  const { term, days, words } = parseQuery(url, ChoiceQuerySchema);
  const positions = words === '' ? [] : words.split(',').map(Number);
  return weighChoice(deps, slug, { term, days, positions });
});
