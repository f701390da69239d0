import { readMarked, readPastedHeader, splitLine, withoutBullet, type PastedColumns } from '../reports';
import { normalise, words } from '../text';

/** What a messy list comes to. Line numbers start at 1; every line that is not blank is in one of the lists or makes an idea. */
export type IdeaLines = {
  ideas: { text: string; line: number; topic: string | null }[];
  /** lines that were not written as they were taken, with what they became */
  cleaned: { line: number; raw: string; became: string[] }[];
  /** lines that name what the following ones are about */
  topics: { line: number; topic: string }[];
  refused: { line: number; raw: string; reason: string }[];
  /** texts that an earlier line gives */
  twice: { line: number; text: string; sameAs: number }[];
};

/** Longer texts are no search terms: a platform takes keywords of up to ten words. */
const MOST_WORDS = 10;
/** A line of so many words that ends like a sentence is one. */
const SENTENCE_WORDS = 5;

const NO_WORD = 'This line holds no word.';

const HEADING = /^#+\s+(.+)$|^\*\*(.+?)\*\*:?$|^([^:]{1,60}):$/u;
const NAMED_LIST = /^([^:,;]{1,60}):\s+(.+)$/u;
const BETWEEN = /\s*[,;|](?!\d)\s*/u;
const NOTE_AT_END = /\s+[([][^()[\]]*[)\]]\s*$/u;
const EXPLAINED = /\s+(?:[-–—]+|=>|→)\s+.*$/u;

/**
 * Reads ideas from lines as people and assistants write them (rules 16.5): bullets, numbers, quotes, notes in brackets and
 * explanations after a dash are taken off, lists within a line come apart, headings name a topic, sentences are refused.
 * @example readIdeaLines('Jobs:\n1. "bee keeper salary" (2,900)\n- beekeeper jobs, apiary jobs').ideas.map(({ text }) => text) // ['bee keeper salary', 'beekeeper jobs', 'apiary jobs']
 */
export function readIdeaLines(pasted: string): IdeaLines {
  const read: IdeaLines = { ideas: [], cleaned: [], topics: [], refused: [], twice: [] };
  const firstOf = new Map<string, number>();
  let columns: PastedColumns | undefined;
  let topic: string | null = null;
  for (const [i, raw] of pasted
    .replace(/^\uFEFF/u, '')
    .split(/\r\n?|\n/u)
    .entries()) {
    if (raw.trim() === '') continue;
    const line = i + 1;
    if (firstOf.size === 0 && !columns && (columns = readPastedHeader(raw))) continue;
    const found = columns ? fromTable(raw, columns) : fromLine(raw);
    if (found.topic !== undefined && found.texts.length === 0) {
      topic = found.topic;
      read.topics.push({ line, topic });
      continue;
    }
    if (found.reason !== undefined) read.refused.push({ line, raw, reason: found.reason });
    const became: string[] = [];
    for (const written of found.texts) {
      const text = normalise(written);
      const reason = faultOf(text);
      if (reason !== undefined) {
        read.refused.push({ line, raw, reason });
        continue;
      }
      became.push(text);
      const sameAs = firstOf.get(text);
      if (sameAs !== undefined) read.twice.push({ line, text, sameAs });
      else {
        firstOf.set(text, line);
        read.ideas.push({ text, line, topic: found.topic ?? topic });
      }
    }
    if (became.length > 0 && (became.length > 1 || became[0] !== raw.trim()))
      read.cleaned.push({ line, raw, became });
  }
  return read;
}

type Found = { texts: string[]; topic?: string; reason?: string };

function fromTable(raw: string, { separator, text }: PastedColumns): Found {
  const cell = splitLine(raw, separator)[text];
  if (cell === undefined || cell.trim() === '')
    return { texts: [], reason: 'This row has no text in the column that the header names.' };
  return { texts: [readMarked(cell.trim()).text] };
}

function fromLine(raw: string): Found {
  const bare = withoutBullet(raw);
  const heading = HEADING.exec(bare);
  if (heading)
    return { texts: [], topic: (heading[1] ?? heading[2] ?? heading[3])!.replace(/:$/u, '').trim() };
  const named = NAMED_LIST.exec(bare);
  const listed = named ? partsOf(named[2]!) : [];
  if (named && listed.length > 0) return { texts: listed, topic: named[1]!.trim() };
  const parts = partsOf(bare);
  // A list has short parts; a sentence with commas has long ones, or ends like one.
  if (words(bare).length >= SENTENCE_WORDS && /[.!?]["”’)]?$/u.test(bare))
    return { texts: [], reason: 'This line reads like a sentence. Write only the search term.' };
  if (parts.length === 0) return { texts: [], reason: NO_WORD };
  return { texts: parts };
}

/** The texts of a list within a line, each without its notes and marks. */
function partsOf(list: string): string[] {
  return list
    .split(BETWEEN)
    .map((part) => part.replace(EXPLAINED, '').replace(NOTE_AT_END, ''))
    .map((part) => readMarked(part.trim().replace(/^[“”„«»‟"']\s*|\s*[“”„«»‟"'.]+$/gu, '')).text)
    .filter((part) => part.trim() !== '');
}

function faultOf(text: string): string | undefined {
  if (text === '') return NO_WORD;
  if (text.split(' ').length > MOST_WORDS)
    return `This text has more than ${MOST_WORDS} words. Search terms are shorter.`;
  return undefined;
}
