const APOSTROPHES = /['`´‘’‛ʼ′＇]/gu;
const INVISIBLE = /[\p{Cf}\p{Me}\u180B-\u180D\u180F\uFE00-\uFE0F\u{E0100}-\u{E01EF}]/gu;
const NOT_OF_A_WORD = /[^\p{L}\p{M}\p{Nd}&]+/gu;
const ORPHAN_MARKS = /(^|[ &])\p{M}+/gu;
const ALREADY_NORMAL = /^[a-z0-9&]+(?: [a-z0-9&]+)*$/;

/**
 * The form in which texts are compared (rules 1.1): lower case, apostrophes and invisible characters dropped,
 * whatever is no letter, mark, digit or `&` turned into single spaces. Accents stay. Idempotent.
 * @returns '' when the text holds no word
 * @example normalise("Men’s  Bee-Suit!") // 'mens bee suit'
 */
export function normalise(raw: string): string {
  if (ALREADY_NORMAL.test(raw)) return raw;
  return raw
    .replace(APOSTROPHES, '')
    .normalize('NFKC')
    .toLowerCase()
    .replace(APOSTROPHES, '')
    .replace(INVISIBLE, '')
    .replace(NOT_OF_A_WORD, ' ')
    .replace(ORPHAN_MARKS, '$1')
    .replace(/ {2,}/g, ' ')
    .trim()
    .normalize('NFKC');
}

/**
 * The words of a text, in order (rules 1.2).
 * @returns [] when the text is empty in the sense of 1.2
 * @example words('Bees & honey') // ['bees', '&', 'honey']
 */
export function words(raw: string): string[] {
  const text = normalise(raw);
  return text === '' ? [] : text.split(' ');
}
