import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/outlook', ({ ask, slug, query }) => {
  const { text, match, kind, id, days } = query;
  return ask('foreseeChoice', slug, { negative: { text, match }, place: { kind, id }, days });
});
