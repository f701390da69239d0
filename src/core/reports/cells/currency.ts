/** Codes of ISO 4217, as the running environment knows them. */
const CODES = new Set(Intl.supportedValuesOf('currency'));

/** Marks that stand for one currency, and marks that several share. */
const MARKS: Readonly<Record<string, string>> = {
  '€': 'EUR',
  '£': 'GBP',
  '₹': 'INR',
  '₽': 'RUB',
  '₺': 'TRY',
  '₩': 'KRW',
  '₴': 'UAH',
  zł: 'PLN',
  kč: 'CZK',
  us$: 'USD',
  r$: 'BRL',
  $: '$',
  '¥': '¥',
  kr: 'kr',
};
const SHARED: Readonly<Record<string, readonly string[]>> = {
  $: ['USD', 'CAD', 'AUD', 'NZD', 'SGD', 'HKD', 'MXN', 'CLP', 'COP', 'ARS'],
  '¥': ['JPY', 'CNY'],
  kr: ['SEK', 'NOK', 'DKK', 'ISK'],
};

/** What marks a currency in a cell or a header, apart from figures. */
export const CURRENCY_MARKS = /us\$|r\$|[\p{Sc}]|zł|kč|\bkr\b\.?|\bfr\.|(?<![\p{L}])[a-z]{3}(?![\p{L}])/giu;

/**
 * The currency that a text names: a code of ISO 4217, a mark that several share, or undefined.
 * @example currencyIn('Cost (EUR)') // 'EUR'
 */
export function currencyIn(text: string): string | undefined {
  for (const [found] of text.matchAll(CURRENCY_MARKS)) {
    const code = found.toUpperCase();
    if (CODES.has(code)) return code;
    const mark = MARKS[found.toLowerCase().replace(/\.$/, '')];
    if (mark !== undefined) return mark;
    if (/^fr\.$/i.test(found)) return 'CHF';
  }
  return undefined;
}

/**
 * Whether two ways to name a currency can mean the same: “$” may be USD.
 * @example agreeOnCurrency('$', 'CAD') // true
 */
export function agreeOnCurrency(a: string, b: string): boolean {
  return a === b || (SHARED[a]?.includes(b) ?? false) || (SHARED[b]?.includes(a) ?? false);
}
