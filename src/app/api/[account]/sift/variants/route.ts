import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/variants', ({ ask, slug, query }) => {
  const { text, match, kind, id, days } = query;
  return ask('offerVariants', slug, { negative: { text, match }, place: { kind, id }, days });
});
