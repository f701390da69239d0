import { serve } from '@/app/api/_handle/handle';

export const GET = serve('GET sift/choice', ({ ask, slug, query: { words, ...query } }) => {
  const positions = words === '' ? [] : words.split(',').map(Number);
  return ask('weighChoice', slug, { ...query, positions });
});
