import type { FileError } from '../reading';

/** The first bytes of files that are no text, and what to do about each. */
const SIGNATURES: { bytes: number[]; error: FileError }[] = [
  { bytes: [0x89, 0x50, 0x4e, 0x47], error: notATable('a PNG picture') },
  { bytes: [0xff, 0xd8, 0xff], error: notATable('a JPEG picture') },
  { bytes: [0x47, 0x49, 0x46, 0x38], error: notATable('a GIF picture') },
  { bytes: [0x25, 0x50, 0x44, 0x46], error: notATable('a PDF document') },
  { bytes: [0x50, 0x4b, 0x03, 0x04], error: notATable('a ZIP archive within another file') },
  { bytes: [0x1f, 0x8b], error: notATable('a gzip archive within another file') },
  { bytes: [0xd0, 0xcf, 0x11, 0xe0], error: notATable('a workbook of an old kind; save it as XLSX or CSV') },
];

function notATable(what: string): FileError {
  return {
    category: 'not a table',
    message: `This is ${what}, not a table of text. Give a CSV, TSV or XLSX file.`,
  };
}

export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof ENCODINGS)[number];

/**
 * The encoding of a text file, from its first bytes: a mark, else a pattern of NUL bytes, else strict UTF-8, else
 * Windows-1252.
 * @returns the encoding, `isUnsure` where some bytes speak for UTF-8 and about as many against it; or what the file is
 * when it is no text
 */
export function sniffEncoding(
  head: Uint8Array,
): { encoding: Encoding; isUnsure?: true } | { error: FileError } {
  const starts = (...bytes: number[]) => bytes.every((byte, i) => head[i] === byte);
  if (starts(0xef, 0xbb, 0xbf)) return { encoding: 'utf-8' };
  if (starts(0xff, 0xfe)) return { encoding: 'utf-16le' };
  if (starts(0xfe, 0xff)) return { encoding: 'utf-16be' };
  const signature = SIGNATURES.find(({ bytes }) => starts(...bytes));
  if (signature) return { error: signature.error };

  const { even, odd, control } = countOddBytes(head);
  if (odd > head.length / 6 && odd > 10 * even) return { encoding: 'utf-16le' };
  if (even > head.length / 6 && even > 10 * odd) return { encoding: 'utf-16be' };
  if (control > head.length / 50 && control > 4) return { error: notATable('a binary file') };
  switch (likenessToUtf8(head)) {
    case 'is':
      return { encoding: 'utf-8' };
    case 'is not':
      return { encoding: 'windows-1252' };
    case 'unsure':
      return { encoding: 'utf-8', isUnsure: true };
  }
}

/** NUL bytes at even and odd offsets, and all control bytes that text does not hold. */
function countOddBytes(head: Uint8Array) {
  let [even, odd, control] = [0, 0, 0];
  head.forEach((byte, i) => {
    if (byte === 0 && i % 2 === 0) even += 1;
    if (byte === 0 && i % 2 === 1) odd += 1;
    if (byte < 9 || (byte > 13 && byte < 32)) control += 1;
  });
  return { even, odd, control };
}

/**
 * Whether bytes are UTF-8, as a whole or but for a few faults: text of another encoding hardly ever holds a character
 * that takes two bytes or more, and a fault with almost every other letter. In a small file one of each says nothing.
 */
function likenessToUtf8(bytes: Uint8Array): 'is' | 'is not' | 'unsure' {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: true }); // a cut last character is fine
    return 'is';
  } catch {
    const text = new TextDecoder('utf-8').decode(bytes, { stream: true });
    let [whole, faults] = [0, 0];
    for (let i = 0; i < text.length; i++) {
      const char = text.charCodeAt(i);
      if (char === 0xfffd) faults += 1;
      else if (char > 127) whole += 1;
    }
    if (whole > 2 * faults) return 'is';
    return whole * 10 < faults || whole === 0 ? 'is not' : 'unsure';
  }
}

/**
 * Decodes chunks; line ends become LF. What the encoding does not hold becomes U+FFFD. Text that was plain ASCII so far
 * can be either UTF-8 or Windows-1252: the first chunk with another byte decides.
 * @param onEncoding hears of a change of mind
 */
export async function* decodeText(
  chunks: AsyncIterable<Uint8Array>,
  encoding: Encoding,
  onEncoding: (encoding: Encoding) => void = () => undefined,
): AsyncGenerator<string> {
  let decoder = new TextDecoder(encoding);
  let isOpen = encoding === 'utf-8';
  let heldBack = '';
  for await (const chunk of chunks) {
    if (isOpen && !isAscii(chunk)) {
      isOpen = false;
      if (likenessToUtf8(chunk) === 'is not') {
        onEncoding('windows-1252');
        decoder = new TextDecoder('windows-1252');
      }
    }
    const text = heldBack + decoder.decode(chunk, { stream: true });
    heldBack = text.endsWith('\r') ? '\r' : ''; // an LF may follow in the next chunk
    yield unifyLineEnds(heldBack ? text.slice(0, -1) : text);
  }
  yield unifyLineEnds(heldBack + decoder.decode());
}

/** Looks at four bytes at once. */
function isAscii(bytes: Uint8Array): boolean {
  const start = Math.min(bytes.length, (4 - (bytes.byteOffset % 4)) % 4);
  const fours = new Uint32Array(bytes.buffer, bytes.byteOffset + start, (bytes.length - start) >> 2);
  for (let i = 0; i < fours.length; i++) if ((fours[i]! & 0x80808080) !== 0) return false;
  const isPlain = (byte: number) => byte < 128;
  return bytes.subarray(0, start).every(isPlain) && bytes.subarray(start + 4 * fours.length).every(isPlain);
}

function unifyLineEnds(text: string): string {
  return text.includes('\r') ? text.replace(/\r\n?/g, '\n') : text;
}
