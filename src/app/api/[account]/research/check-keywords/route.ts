import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST research/check-keywords', ({ ask, slug, body }) =>
  ask('checkKeywords', slug, body),
);
