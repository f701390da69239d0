import { expect, test } from 'vitest';
import { sayEvidence } from './meter';

const known = (over: { misses: number; settlesAt: number | null; clicks: number; conversions?: number }) => ({
  ...{ breakEvenCvr: 0.05, conversions: 0, since: '2026-08-24' },
  ...over,
});

test.each([
  {
    evidence: known({ misses: 0.97, settlesAt: 58, clicks: 60 }),
    said: '97 % sure that it misses the target; it would pay from 5.0 conversions in 100 clicks.',
  },
  {
    evidence: known({ misses: 0.6, settlesAt: 58, clicks: 49 }),
    said: '60 % sure that it misses the target; it would pay from 5.0 conversions in 100 clicks. 9 more clicks without a conversion would settle it.',
  },
  {
    evidence: known({ misses: 0.2, settlesAt: 58, clicks: 90 }),
    said: '20 % sure that it misses the target; it would pay from 5.0 conversions in 100 clicks.',
  },
  {
    evidence: known({ misses: 0.2, settlesAt: null, clicks: 1 }),
    said: '20 % sure that it misses the target; it would pay from 5.0 conversions in 100 clicks.',
  },
  { evidence: null, said: 'No evidence: the account has no target, or a figure is unknown.' },
])('$said', ({ evidence, said }) => {
  const inWindow = { clicks: evidence?.clicks ?? 3, conversions: 0 };
  expect(sayEvidence(evidence, inWindow)).toBe(said);
});

test('where all days say something else than the window, both are said', () => {
  const evidence = known({ misses: 0.4, settlesAt: 58, clicks: 70, conversions: 2 });
  expect(sayEvidence(evidence, { clicks: 12, conversions: 0 })).toBe(
    'Since 24 Aug, beyond this window too: 70 clicks, 2 conversions. 40 % sure that it misses the target; it would pay from 5.0 conversions in 100 clicks.',
  );
});
