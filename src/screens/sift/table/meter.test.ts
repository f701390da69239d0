import { expect, test } from 'vitest';
import { sayEvidence } from './meter';

test.each([
  [
    { misses: 0.97, breakEvenCvr: 0.051, settlesAt: 58 },
    60,
    'Misses the target, 97 % sure; a click pays at 5.1 % conversions.',
  ],
  [
    { misses: 0.6, breakEvenCvr: 0.05, settlesAt: 58 },
    49,
    '60 % sure that it misses the target; a click pays at 5.0 % conversions. 9 more clicks without a conversion would settle it.',
  ],
  [
    { misses: 0.2, breakEvenCvr: 0.05, settlesAt: 58 },
    90,
    '20 % sure that it misses the target; a click pays at 5.0 % conversions.',
  ],
  [
    { misses: 0.2, breakEvenCvr: 0.05, settlesAt: null },
    1,
    '20 % sure that it misses the target; a click pays at 5.0 % conversions.',
  ],
  [null, 3, 'No evidence: the account has no target, or a figure is unknown.'],
])('%j at %j clicks', (evidence, clicks, said) => {
  expect(sayEvidence(evidence, clicks)).toBe(said);
});
