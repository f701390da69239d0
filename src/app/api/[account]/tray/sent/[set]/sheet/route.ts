import { parseId, reads, saved } from '@/app/api/_handle/handle';
import { Refusal } from '@/server/use-cases/deps';

export const GET = reads(async ({ ask, slug, params, url }) => {
  const kind = url.searchParams.get('as') ?? 'csv';
  if (kind !== 'csv' && kind !== 'xlsx') throw new Refusal('A tray is saved as csv or xlsx.');
  return saved(await ask('sheetOfSet', slug, parseId(params.set), kind));
});
