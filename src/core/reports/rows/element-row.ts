import { isMissing } from '../cells/numbers';
import type { ElementRow, ElementStatus } from '../reading';
import { checkText, Refused, type Cells } from './row-cells';
import { readMarked, readMatch } from './match-words';

const STATUS_WORDS: readonly { status: ElementStatus; pattern: RegExp }[] = [
  { status: 'removed', pattern: /remov|delet|entfern|gelosch|gelösch|supprim|elimin|verwijder/ },
  { status: 'ended', pattern: /^end|beendet|abgelaufen|termin|finaliz|beeindig|archiv/ },
  { status: 'paused', pattern: /paus|disabled|inactive|inaktiv|inactif|inactiv|gepauz/ },
];

const ELEMENT_WORDS: readonly { element: ElementRow['element']; pattern: RegExp }[] = [
  { element: 'negative', pattern: /negativ|négatif|exclu|ausschl|uitsluit/ },
  { element: 'list', pattern: /\blist|liste|lijst|hang/ },
  { element: 'keyword', pattern: /keyword|schlüssel|stichwort|mot|palabra|zoekwoord|target/ },
  { element: 'ad group', pattern: /group|grupp|grupo|groep/ },
  { element: 'campaign', pattern: /campai|kampagne|campagne|campañ/ },
];

/**
 * Reads elements of an account, each by the cells of the row at hand. What it is, a column may say; else it is the
 * narrowest thing that the row names, and a match type with “negative” in it, or a list, makes a keyword a negative.
 */
export function elementReader(cells: Cells): (line: number) => ElementRow {
  const filled = (cell: string) => (isMissing(cell) ? '' : checkText(cell));
  const [campaign, adGroup] = [cells.name('campaign', filled), cells.name('ad group', filled)];
  const list = cells.name('list', filled);
  const keyword = cells.text('keyword');
  const [status, matchWords] = [cells.name('status', readStatus), cells.name('match type', (words) => words)];
  const elementWords = cells.name('element', (words) => words);
  const [endDate, bid] = [cells.day('end date'), cells.micros('bid')];
  return (line) => {
    const { text, match: marked } = readMarked(filled(keyword()));
    const words = matchWords();
    return elementFrom({
      ...{ line, status: status(), campaign: campaign(), adGroup: adGroup(), list: list(), text },
      ...{ match: readMatch(words) ?? marked, said: `${elementWords()} ${words}`, endDate, bid },
    });
  };
}

type Parts = Record<'campaign' | 'adGroup' | 'list' | 'text', string> & {
  line: number;
  status: ElementStatus;
  match: ReturnType<typeof readMatch>;
  /** what the cells say that it is */
  said: string;
  endDate: () => string | undefined;
  bid: () => number | null;
};

function elementFrom({ line, status, campaign, adGroup, list, text, match, ...more }: Parts): ElementRow {
  const base = { line, status };
  const element = elementOf(more.said, { adGroup, list, text });
  const need = (value: string, what: string) => {
    if (value === '') throw new Refused('too few cells', `a ${element} needs its ${what}`);
    return value;
  };
  switch (element) {
    case 'campaign':
      return {
        ...base,
        element,
        campaign: need(campaign, 'campaign'),
        endDate: more.endDate() ?? null,
      };
    case 'ad group':
      return { ...base, element, campaign: need(campaign, 'campaign'), adGroup: need(adGroup, 'ad group') };
    case 'keyword':
      return {
        ...{ ...base, element, campaign: need(campaign, 'campaign'), adGroup: need(adGroup, 'ad group') },
        ...{ text: need(text, 'keyword'), match: match ?? 'broad', bidMicros: more.bid() },
      };
    case 'negative':
      return {
        ...{ ...base, element, campaign, adGroup, list, text: need(text, 'text') },
        match: match === null || match === 'automatic' ? 'broad' : match,
      };
    case 'list':
      return { ...base, element, list: need(list, 'list'), campaign };
  }
}

function readStatus(cell: string): ElementStatus {
  const words = cell.toLowerCase();
  return STATUS_WORDS.find(({ pattern }) => pattern.test(words))?.status ?? 'live';
}

function elementOf(
  said: string,
  { adGroup, list, text }: { adGroup: string; list: string; text: string },
): ElementRow['element'] {
  const named = ELEMENT_WORDS.find(({ pattern }) => pattern.test(said.toLowerCase()))?.element;
  if (named) return named === 'keyword' && list !== '' ? 'negative' : named;
  if (text !== '') return list === '' ? 'keyword' : 'negative';
  if (list !== '') return 'list';
  return adGroup === '' ? 'campaign' : 'ad group';
}
