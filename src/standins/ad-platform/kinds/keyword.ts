import type { Structure } from '@/contracts/platform';
import { refuse, type AccountInWork, type ActionsFor, type Applied } from './kind';

export const keywordActions: ActionsFor<'set bid' | 'pause keyword' | 'run keyword'> = {
  'set bid': ({ keywordId, bidMicros }, account) => alter(account, keywordId, { bidMicros }),
  'pause keyword': ({ keywordId }, account) => alter(account, keywordId, { status: 'paused' }),
  'run keyword': ({ keywordId }, account) => alter(account, keywordId, { status: 'live' }),
};

async function alter(
  account: AccountInWork,
  id: string,
  fields: Partial<Pick<Structure['keywords'][number], 'bidMicros' | 'status'>>,
): Promise<Applied> {
  const keyword = account.structure.keywords.find((k) => k.id === id);
  if (!keyword) return refuse('no such keyword', 'The keyword is not there.');
  Object.assign(keyword, fields, { changedOn: account.today });
  await account.put('keywords', keyword);
  return { id };
}
