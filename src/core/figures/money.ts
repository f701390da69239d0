/** Amounts in micro-units, and how a currency writes them. */

const MICROS = 1_000_000;
/** No amount that is typed or kept comes near it: sums of many such stay below 2^53. */
const MOST_MICROS = 1e15;

const CODES: ReadonlySet<string> = new Set(Intl.supportedValuesOf('currency'));
const decimals = new Map<string, number>();
const formats = new Map<number, Intl.NumberFormat>();

/**
 * Whether a text is a currency code of ISO 4217.
 * @example isCurrency('KWD') // true
 */
export function isCurrency(code: string): boolean {
  return CODES.has(code);
}

/**
 * Decimal places of a currency's amounts.
 * @throws RangeError when the code is not of three letters
 * Source: ISO 4217, as the running environment knows it (Intl).
 * @example decimalsOf('JPY') // 0
 */
export function decimalsOf(currency: string): number {
  let places = decimals.get(currency);
  if (places === undefined) {
    const format = new Intl.NumberFormat('en', { style: 'currency', currency });
    decimals.set(currency, (places = format.resolvedOptions().maximumFractionDigits ?? 2));
  }
  return places;
}

/**
 * A currency's smallest unit in micro-units.
 * @example smallestUnitOf('EUR') // 10_000
 */
export function smallestUnitOf(currency: string): number {
  return MICROS / 10 ** decimalsOf(currency);
}

/**
 * An amount with the currency's own decimal places and thousands grouped, without its sign.
 * @example formatAmount(1_204_500_000, 'KWD') // '1,204.500'
 */
export function formatAmount(micros: number, currency: string): string {
  const places = decimalsOf(currency);
  let format = formats.get(places);
  if (!format) {
    const digits = { minimumFractionDigits: places, maximumFractionDigits: places };
    formats.set(places, (format = new Intl.NumberFormat('en', digits)));
  }
  return format.format(micros / MICROS);
}

/**
 * The same without grouping: for fields that are typed in, and for sheets.
 * @example plainAmount(1_204_500_000, 'JPY') // '1205'
 */
export function plainAmount(micros: number, currency: string): string {
  return (micros / MICROS).toFixed(decimalsOf(currency));
}

/**
 * Reads an amount as a person types it: digits, and after a point or a comma no more places than the currency has.
 * @returns micro-units; undefined where it is no such amount
 * @example parseAmount('18,5', 'EUR') // 18_500_000
 */
export function parseAmount(text: string, currency: string): number | undefined {
  const [, whole, rest = ''] = /^(\d{1,12})(?:[.,](\d+))?$/.exec(text.trim()) ?? [];
  if (whole === undefined || rest.length > decimalsOf(currency)) return undefined;
  const micros = Math.round(Number(`${whole}.${rest || 0}`) * MICROS);
  return micros <= MOST_MICROS ? micros : undefined;
}

/**
 * An amount such as `parseAmount` takes, to be shown as an example.
 * @example exampleAmount('KWD') // '18.000'
 */
export function exampleAmount(currency: string): string {
  return plainAmount(decimalsOf(currency) === 0 ? 1_800 * MICROS : 18 * MICROS, currency);
}
