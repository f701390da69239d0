import { parseQuery, reads } from '@/app/api/_handle/handle';
import { VariantsQuerySchema } from '@/contracts/hand';

export const GET = reads(({ ask, slug, url }) => {
  const { text, match, kind, id, days } = parseQuery(url, VariantsQuerySchema);
  return ask('offerVariants', slug, { negative: { text, match }, place: { kind, id }, days });
});
