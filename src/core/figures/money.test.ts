import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { decimalsOf, formatAmount, isCurrency, parseAmount, plainAmount, smallestUnitOf } from './money';

describe('amounts have the decimal places of their currency', () => {
  test.each([
    ['EUR', 2, '1,204.50', '1204.50'],
    ['JPY', 0, '1,205', '1205'],
    ['KWD', 3, '1,204.500', '1204.500'],
  ])('%s has %i', (currency, places, grouped, plain) => {
    expect(decimalsOf(currency)).toBe(places);
    expect(formatAmount(1_204_500_000, currency)).toBe(grouped);
    expect(plainAmount(1_204_500_000, currency)).toBe(plain);
    expect(smallestUnitOf(currency) * 10 ** places).toBe(1_000_000);
  });

  test.each([
    ['18', 'EUR', 18_000_000],
    [' 18,5 ', 'EUR', 18_500_000],
    ['18.505', 'EUR', undefined],
    ['18.505', 'KWD', 18_505_000],
    ['2000', 'JPY', 2_000_000_000],
    ['2000.5', 'JPY', undefined],
    ['1,500', 'EUR', undefined],
    ['-1', 'EUR', undefined],
    ['1e3', 'EUR', undefined],
    ['', 'EUR', undefined],
    ['999999999999', 'EUR', undefined],
  ])('“%s” in %s is %s micro-units', (text, currency, micros) => {
    expect(parseAmount(text, currency)).toBe(micros);
  });

  test('what is written is read as the same amount', () => {
    const amount = fc.tuple(fc.constantFrom('EUR', 'JPY', 'KWD'), fc.nat(1_000_000_000));
    fc.assert(
      fc.property(amount, ([currency, units]) => {
        const micros = units * smallestUnitOf(currency);
        fc.pre(micros <= 1e15);
        expect(parseAmount(plainAmount(micros, currency), currency)).toBe(micros);
      }),
    );
  });

  test('a code is one that ISO 4217 knows', () => {
    expect([isCurrency('CHF'), isCurrency('XQZ'), isCurrency('eur')]).toEqual([true, false, false]);
  });
});
