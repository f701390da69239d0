import { reads, saved } from '@/app/api/_handle/handle';
import { Refusal } from '@/server/use-cases/deps';

export const GET = reads(async ({ ask, slug, params, url }) => {
  const kind = url.searchParams.get('as') ?? 'csv';
  if (kind !== 'csv' && kind !== 'xlsx' && kind !== 'json')
    throw new Refusal('A list is saved as csv, xlsx or json.');
  return saved(await ask('writeListFile', slug, params.list ?? '', kind));
});
