import { parseId, reads } from '@/app/api/_handle/handle';

export const GET = reads(({ ask, slug, url }) => {
  const before = url.searchParams.get('before');
  return ask('viewLedger', slug, before === null ? undefined : parseId(before));
});
