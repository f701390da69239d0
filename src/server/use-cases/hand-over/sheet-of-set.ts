import { describeChange, plainAmount, writeCsv, type Change, type Place } from '@/core';
import { findSet, loadChangesOf, type StoredChange } from '../../repositories/change-sets';
import { writeWorkbook } from '../../files/write-workbook';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';

const HEADER = [
  ...['Do', 'Campaign', 'Ad group', 'List', 'Text', 'Match type', 'Keyword', 'Bid', 'Product code'],
  ...['Placement', 'In words', 'Why', 'Put in by', 'State'],
] as const;
type Cells = Partial<Record<(typeof HEADER)[number], string | null>>;

/**
 * A tray that was given out as a sheet, a change a row: what is to be done and where, by the names that the platform
 * shows, so that somebody without Gate Post can carry it out.
 * @throws Refusal when there is no such tray
 */
export async function sheetOfSet(
  deps: Deps,
  slug: string,
  setId: number,
  kind: 'csv' | 'xlsx',
): Promise<{ name: string; type: string; content: string | Uint8Array<ArrayBuffer> }> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const set = await findSet(deps.db, open.account.id, setId);
  if (!set || set.state === 'draft') throw new Refusal('This tray is not there any more.', 404);
  const changes = await loadChangesOf(deps.db, open.account.id, setId);
  const rows = changes.map((stored) => toRow(open, stored));
  const day = (set.sentAt ?? '').slice(0, 10);
  const name = `${open.account.slug} ${day} tray ${setId}.${kind}`;
  if (kind === 'csv') return { name, type: 'text/csv; charset=utf-8', content: writeCsv([...HEADER], rows) };
  const content = await writeWorkbook([{ name: `tray ${setId}`, header: HEADER, rows }]);
  return { name, type: XLSX, content };
}

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

function toRow(open: Open, { change, why, draftedBy, state }: StoredChange): (string | null)[] {
  const cells: Cells = {
    ...{ Do: DO[change.kind], ...whatOf(open, change) },
    ...{ 'In words': describeChange(change, open.names), Why: why, 'Put in by': draftedBy },
    State: state === 'drafted' ? 'to do' : state === 'said' ? 'said to be done' : state,
  };
  return HEADER.map((column) => cells[column] ?? null);
}

const DO: Record<Change['kind'], string> = {
  'add negative': 'Add the negative',
  'remove negative': 'Remove the negative',
  'make list': 'Make the shared list',
  'remove list': 'Remove the shared list',
  'rename list': 'Rename the shared list',
  'hang list': 'Apply the shared list',
  'take down list': 'Take the shared list off',
  'add placement': 'Add the placement',
  'remove placement': 'Remove the placement',
  'exclude product': 'Exclude the product',
  'readmit product': 'Take back the exclusion of the product',
  'set bid': 'Set the bid',
  'pause keyword': 'Pause the keyword',
  'run keyword': 'Run the keyword again',
};

function whatOf(open: Open, change: Change): Cells {
  const { names, account } = open;
  const list = (id: string) => ({ List: names.list(id) ?? id });
  switch (change.kind) {
    case 'add negative':
    case 'remove negative':
      return { Text: change.text, 'Match type': change.match, ...placeOf(open, change.place) };
    case 'make list':
    case 'remove list':
      return { List: change.name };
    case 'rename list':
      return { List: change.was, Text: change.name };
    case 'hang list':
    case 'take down list':
      return {
        ...list(change.listId),
        Campaign:
          change.campaignId === null
            ? 'the whole account'
            : (names.campaign(change.campaignId) ?? change.campaignId),
      };
    case 'add placement':
    case 'remove placement':
      return { ...list(change.listId), Placement: change.address };
    case 'exclude product':
    case 'readmit product':
      return { 'Product code': change.code, ...placeOf(open, change.place) };
    case 'set bid':
      return { Bid: plainAmount(change.bidMicros, account.currency), ...keywordOf(open, change.keywordId) };
    case 'pause keyword':
    case 'run keyword':
      return keywordOf(open, change.keywordId);
  }
}

function placeOf({ names, snapshot }: Open, { kind, id }: Place): Cells {
  switch (kind) {
    case 'account':
      return { Campaign: 'the whole account' };
    case 'campaign':
      return { Campaign: names.campaign(id!) ?? id };
    case 'list':
      return { List: names.list(id!) ?? id };
    case 'adGroup': {
      const campaignId = snapshot.adGroup.get(id!)?.campaignId ?? '';
      return { Campaign: names.campaign(campaignId) ?? null, 'Ad group': names.adGroup(id!) ?? id };
    }
  }
}

function keywordOf(open: Open, keywordId: string): Cells {
  const keyword = open.snapshot.keyword.get(keywordId);
  if (!keyword) return { Keyword: keywordId };
  const { text, match, adGroupId } = keyword;
  return { Keyword: text, 'Match type': match, ...placeOf(open, { kind: 'adGroup', id: adGroupId }) };
}
