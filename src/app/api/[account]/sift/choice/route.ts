import { parseQuery, reads } from '@/app/api/_handle/handle';
import { ChoiceQuerySchema } from '@/contracts/hand';

export const GET = reads(({ ask, slug, url }) => {
  const { term, days, campaign, words } = parseQuery(url, ChoiceQuerySchema);
  const positions = words === '' ? [] : words.split(',').map(Number);
  return ask('weighChoice', slug, { term, days, campaign, positions });
});
