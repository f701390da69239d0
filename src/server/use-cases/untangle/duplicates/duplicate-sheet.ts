import { group } from 'd3';
import { describeChange, plainAmount, writeCsv, type Change } from '@/core';
import type { DuplicateDecisions, DuplicatesQuery } from '@/contracts/duplicates';
import { writeWorkbook } from '../../../files/write-workbook';
import { Refusal, type Deps } from '../../deps';
import type { Open } from '../../open-workbench';
import { tablesIn, type SmallFile } from '../../small-file';
import { openKeywords } from './keyword-figures';
import { findDuplicates, lookAt, type FoundGroup, type Standing } from './find-duplicates';
import { keyOfGroup } from './knots-of-duplicates';

const HEADINGS = [
  ...['group', 'campaign', 'ad group', 'keyword', 'match type', 'status', 'bid'],
  ...[
    'clicks',
    'cost',
    'conversions',
    'impression share',
    'quality',
    'expected cost of a conversion',
    'sure',
    'suggestion',
  ],
  ...['decision', 'reason', 'keyword number'],
] as const;
type Heading = (typeof HEADINGS)[number];
/** Without these nothing can be read. */
const NEEDED = ['group', 'campaign', 'ad group', 'keyword', 'decision', 'keyword number'] as const;
const DECISIONS = ['keep', 'pause', 'remove'] as const;

type Written = { name: string; type: string; content: string | Uint8Array<ArrayBuffer> };

/** All groups of a rung, a keyword a row, with a column for decisions: filled where the answer is clear. */
export async function writeDuplicateSheet(
  deps: Deps,
  slug: string,
  as: 'csv' | 'xlsx',
  query: DuplicatesQuery,
): Promise<Written> {
  const open = await openKeywords(deps, slug, query.days);
  const rows = findDuplicates(open, query).groups.flatMap((group, g) =>
    rowsOf(open, group, g + 1, query.sure / 100),
  );
  const name = `${open.account.slug} duplicate keywords.${as}`;
  if (as === 'csv') return { name, type: 'text/csv; charset=utf-8', content: writeCsv([...HEADINGS], rows) };
  const content = await writeWorkbook([{ name: 'duplicate keywords', header: HEADINGS, rows }]);
  return { name, type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', content };
}

function rowsOf(
  { account: { currency } }: Open,
  { keywords, expected, sure }: FoundGroup,
  number: number,
  threshold: number,
): string[][] {
  const money = (micros: number | null) =>
    micros === null || !Number.isFinite(micros) ? '' : plainAmount(Math.round(micros), currency);
  return keywords.map((one, i) => {
    const suggestion = i === 0 ? 'keep' : one.status === 'live' ? 'pause' : '';
    const { figures, told } = one;
    const cells: Record<Heading, string> = {
      ...{ group: String(number), campaign: one.campaign.name, 'ad group': one.adGroup.name },
      ...{ keyword: one.text, 'match type': one.match, status: one.status, bid: money(one.bidMicros) },
      ...{ clicks: String(figures.clicks ?? 0), cost: money(figures.costMicros ?? 0) },
      conversions: String(figures.conversions ?? 0),
      'impression share': told?.impressionShare == null ? '' : `${(100 * told.impressionShare).toFixed(1)} %`,
      quality: String(told?.quality ?? ''),
      'expected cost of a conversion': money(expected[i]!.costMicros),
      sure: `${Math.floor(sure * 100)} %`,
      ...{ suggestion, decision: sure >= threshold ? suggestion : '', reason: '' },
      'keyword number': one.id,
    };
    return HEADINGS.map((heading) => cells[heading]);
  });
}

/**
 * Reads a sheet of duplicates that came back. Each row is held against the account by number and by names, since sorting
 * a part of a sheet makes wrong rows. Nothing is stored.
 * @throws Refusal when a heading is missing
 */
export async function readDuplicateSheet(
  deps: Deps,
  slug: string,
  file: SmallFile,
): Promise<DuplicateDecisions> {
  const open = await openKeywords(deps, slug);
  const tables = tablesIn(file);
  const table = tables.find((one) => missingIn(one).length === 0);
  if (!table) {
    const missing = missingIn(tables[0] ?? []);
    throw new Refusal(
      `The first row lacks ${missing.map((heading) => `“${heading}”`).join(', ')}. Save the sheet of duplicates and fill in its column “decision”. Nothing was taken.`,
    );
  }
  const { keyword } = lookAt(open, { campaigns: '', besides: ['paused', 'ended', 'removed'] });
  const read = table.slice(1).flatMap((cells, i) => readRow(table[0]!, cells, i + 2, keyword));
  const unclear = read.flatMap(({ line, fault }) => (fault === undefined ? [] : [{ line, why: fault }]));
  const lonely = groupsWithoutAny(read);
  const decided = read.filter(
    (row): row is Required<Row> => row.fault === undefined && row.keyword !== undefined,
  );
  for (const row of decided)
    if (isEnding(row) && lonely.has(row.group))
      unclear.push({ line: row.line, why: `nothing of group ${row.group} would stay; keep one of them` });
  const changes = decided.filter((row) => isEnding(row) && !lonely.has(row.group));
  const ofGroup = group(decided, (row) => row.group);
  return {
    changes: changes.map(({ keyword: one, decision, reason, group: named }) => {
      const change = changeOf(one, decision as 'pause' | 'remove');
      const why = reason === '' ? 'untangled: the same keyword stays elsewhere' : `untangled: ${reason}`;
      const keywords = ofGroup.get(named)!.map((row) => row.keyword);
      const knot = { kind: 'duplicate' as const, key: keyOfGroup({ keywords }) };
      return { change, said: describeChange(change, open.names), why, knot };
    }),
    kept: decided.filter(({ decision }) => decision === 'keep').length,
    undecided: decided.filter(({ decision }) => decision === '').length,
    unclear: unclear.sort((a, b) => a.line - b.line),
  };
}

type Row = {
  line: number;
  group: string;
  decision: (typeof DECISIONS)[number] | '';
  reason: string;
  keyword?: Standing;
  fault?: string;
};

const isEnding = ({ decision }: Row) => decision === 'pause' || decision === 'remove';
const headingOf = (cell: string | undefined) => (cell ?? '').trim().toLowerCase();

function missingIn(table: readonly string[][]): string[] {
  const has = new Set((table[0] ?? []).map(headingOf));
  return NEEDED.filter((heading) => !has.has(heading));
}

function readRow(
  header: readonly string[],
  cells: readonly string[],
  line: number,
  known: ReadonlyMap<string, Standing>,
): Row[] {
  if (cells.every((cell) => cell.trim() === '')) return [];
  const cell = (heading: Heading) => {
    const at = header.findIndex((one) => headingOf(one) === heading);
    return at < 0 ? '' : (cells[at] ?? '').trim();
  };
  const said = cell('decision').toLowerCase();
  const decision: Row['decision'] = DECISIONS.find((one) => one === said) ?? '';
  const row = { line, group: cell('group'), decision, reason: cell('reason').slice(0, 300) };
  if (said !== decision)
    return [{ ...row, fault: `“${said}” is no decision; write keep, pause or remove, or nothing` }];
  const keyword = known.get(cell('keyword number'));
  if (!keyword)
    return [{ ...row, fault: `there is no keyword with the number “${cell('keyword number')}” any more` }];
  const names = [cell('campaign'), cell('ad group'), cell('keyword')];
  if (names.join('\n') !== [keyword.campaign.name, keyword.adGroup.name, keyword.text].join('\n')) {
    const { campaign, adGroup, text } = keyword;
    return [
      { ...row, fault: `number ${keyword.id} is “${text}” in ${campaign.name} · ${adGroup.name}, not this` },
    ];
  }
  if (decision === 'remove' && keyword.bidMicros === null)
    return [{ ...row, fault: 'its bid is not known, so a removal could not be undone; pause it' }];
  return [{ ...row, keyword }];
}

/** Groups of which no live keyword would be left. */
function groupsWithoutAny(rows: readonly Row[]): ReadonlySet<string> {
  const stays = new Set(
    rows.flatMap((row) => (row.keyword?.status === 'live' && !isEnding(row) ? [row.group] : [])),
  );
  return new Set(rows.map(({ group }) => group).filter((group) => !stays.has(group)));
}

function changeOf(
  { id, campaign, adGroup, text, match, bidMicros }: Standing,
  decision: 'pause' | 'remove',
): Change {
  if (decision === 'pause' || bidMicros === null) return { kind: 'pause keyword', keywordId: id };
  return {
    ...{ kind: 'remove keyword', campaign: campaign.name, adGroup: adGroup.name },
    ...{ text, match, bidMicros },
  };
}
