import { describe, expect, test } from 'vitest';
import { faultOfCodePattern } from './product-codes';

describe('a pattern of product codes', () => {
  test.each([
    '',
    '[A-Z]{2}-[0-9]{4}',
    '(?:LK|BQ)-\\d+(-[A-Z])?',
    '([A-Z]{2}-)+\\d',
    '[+*(]+',
    '\\(a+\\)+',
    'B0[A-Z0-9]*',
  ])('%s is one', (pattern) => expect(faultOfCodePattern(pattern)).toBeUndefined());

  test.each(['[A-Z', '(', '*', 'a{2,1}'])('%s can not be read', (pattern) =>
    expect(faultOfCodePattern(pattern)).toContain('no pattern'),
  );

  test.each(['(a+)+', '(a*)*b', '(?:a|a)*', '((ab)*c)+', '(a{2,})+', '(x(y+)?)*'])(
    '%s could keep a text busy for ever',
    (pattern) => expect(faultOfCodePattern(pattern)).toContain('for ever'),
  );
});
