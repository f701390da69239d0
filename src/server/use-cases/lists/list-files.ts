import * as v from 'valibot';
import { writeCsv } from '@/core';
import { ListFileSchema, type ListFile, type ReadListFile } from '@/contracts/lists';
import { writeWorkbook } from '../../files/write-workbook';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { readSmallFile, type Incoming } from '../small-file';
import { requireList } from './known-lists';

export type ListFileKind = 'csv' | 'xlsx' | 'json';
const TYPES: Record<ListFileKind, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  json: 'application/json',
};
export type WrittenFile = { name: string; type: string; content: string | Uint8Array<ArrayBuffer> };

/** A list as a file, as the tray leaves it (docs/list-files.md). */
export async function writeListFile(
  deps: Deps,
  slug: string,
  listId: string,
  kind: ListFileKind,
): Promise<WrittenFile> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { name, holds } = requireList(open, listId);
  const entries = open.draft.gate.entriesAt({ kind: 'list', id: listId });
  const placements = open.draft.gate.placementsIn(listId);
  const header = holds === 'placements' ? ['placement'] : ['keyword', 'match type'];
  const rows =
    holds === 'placements' ? placements.map((one) => [one]) : entries.map((e) => [e.text, e.match]);
  const file: ListFile = { gatepost: 'lists', version: 1, lists: [{ name, holds, entries, placements }] };
  const content =
    kind === 'json'
      ? `${JSON.stringify(file, null, 2)}\n`
      : kind === 'csv'
        ? writeCsv(header, rows)
        : await writeWorkbook([{ name, header, rows }]);
  const safeName = name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '') || 'list';
  return { name: `${safeName}.${kind}`, type: TYPES[kind], content };
}

/**
 * Reads a file with lists into lines, to be looked at before anything is taken of it: JSON of our own, a workbook (a
 * list a sheet), or text.
 * @throws Refusal when it can not be read
 */
export async function readListFile(deps: Pick<Deps, 'reader'>, incoming: Incoming): Promise<ReadListFile> {
  const file = await readSmallFile(deps, incoming);
  if ('sheets' in file) return toLists(file.sheets);
  const { text } = file;
  return /^\s*\{/.test(text) ? readOwn(text) : { lists: [{ name: null, holds: guess(text), text }] };
}

function toLists(sheets: readonly { name: string; text: string }[]): ReadListFile {
  const lists = sheets.flatMap(({ name, text }) =>
    text.trim() === '' ? [] : [{ name, holds: guess(text), text }],
  );
  if (lists.length === 0) throw new Refusal('The workbook holds no line. Nothing was taken.');
  return { lists };
}

/** Most lines are addresses: a dot in the first cell, and no space. */
function guess(text: string): 'words' | 'placements' {
  const lines = text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .slice(0, 200);
  const addresses = lines.filter((line) => /^"?[^\s"]+\.[^\s"]{2,}/.test(line.trim())).length;
  return addresses * 2 > lines.length ? 'placements' : 'words';
}

function readOwn(text: string): ReadListFile {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new Refusal(`The file is no JSON: ${(error as Error).message}. Nothing was taken.`);
  }
  const parsed = v.safeParse(ListFileSchema, json);
  if (!parsed.success) {
    const [issue] = parsed.issues;
    throw new Refusal(
      `The file is no list file of Gate Post, at ${v.getDotPath(issue) ?? 'its start'}: ${issue.message}. Nothing was taken.`,
    );
  }
  return {
    lists: parsed.output.lists.map(({ name, holds, entries, placements }) => ({
      ...{ name, holds },
      text: holds === 'placements' ? placements.join('\n') : writeLines(entries),
    })),
  };
}

function writeLines(entries: ListFile['lists'][number]['entries']): string {
  return [
    'keyword\tmatch type',
    ...entries.map(({ text, match }) => `${text.replace(/\s+/g, ' ')}\t${match}`),
  ].join('\n');
}
