import { describe, expect, test } from 'vitest';
import { isRuled, sayRule } from './index';

describe('hanging by rule', () => {
  const campaign = { name: 'Hives · Starter', status: 'live', channel: 'search', labels: ['core', 'uk'] };
  test.each([
    [{}, true],
    [{ statuses: ['live'], channels: ['search'] }, true],
    [{ statuses: ['paused'] }, false],
    [{ nameHolds: ['HIVES', 'starter'] }, true],
    [{ nameHolds: ['hives ·'], nameLacks: ['brand'] }, true],
    [{ nameLacks: ['starter'] }, false],
    [{ labels: ['us', 'uk'] }, true],
    [{ labels: ['us'] }, false],
    [{ nameHolds: ['·'] }, true],
  ])('%j', (rule, holds) => {
    expect(isRuled(rule, campaign)).toBe(holds);
  });

  test('is said in words', () => {
    expect(sayRule({})).toBe('all campaigns');
    expect(sayRule({ nameHolds: ['a', 'b'], nameLacks: ['c'], labels: ['x'] })).toBe(
      'all campaigns whose name holds “a” and “b” and does not hold “c” with the label “x”',
    );
  });
});
