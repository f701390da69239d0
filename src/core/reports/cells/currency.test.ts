import { expect, test } from 'vitest';
import { agreeOnCurrency, currencyIn } from './currency';

test.each([
  ['12.50 EUR', 'EUR'],
  ['€12,50', 'EUR'],
  ['£ 3', 'GBP'],
  ['US$ 3', 'USD'],
  ['R$ 3', 'BRL'],
  ['$3', '$'],
  ['¥300', '¥'],
  ['12,00 zł', 'PLN'],
  ['120 Kč', 'CZK'],
  ['120 kr', 'kr'],
  ['Fr. 12.50', 'CHF'],
  ['EUR12.50', 'EUR'],
  ['Cost (usd)', 'USD'],
  ['12.50', undefined],
  ['12 abc', undefined],
  ['costs', undefined],
  ['', undefined],
])('%j names %j', (text, currency) => expect(currencyIn(text)).toBe(currency));

test.each([
  ['EUR', 'EUR', true],
  ['$', 'CAD', true],
  ['USD', '$', true],
  ['kr', 'SEK', true],
  ['¥', 'JPY', true],
  ['$', 'EUR', false],
  ['USD', 'CAD', false],
  ['kr', 'PLN', false],
])('%s and %s agree: %j', (a, b, agree) => expect(agreeOnCurrency(a, b)).toBe(agree));
