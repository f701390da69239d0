import { describe, expect, test } from 'vitest';
import type { MatchType } from './negative';
import { stops } from './stops';

describe('stops', () => {
  test.each<[MatchType, string, string, boolean]>([
    ['broad', 'free', 'free hive plans', true],
    ['broad', 'free', 'freestyle frames', false],
    ['broad', 'plans free', 'free hive plans', true],
    ['broad', 'hive hive', 'free hive', true],
    ['broad', 'hives', 'free hive', false],
    ['phrase', 'hive plans', 'free hive plans pdf', true],
    ['phrase', 'free plans', 'free hive plans', false],
    ['phrase', 'plans hive', 'free hive plans', false],
    ['phrase', 'bee bee', 'bee bee hive', true],
    ['phrase', 'bee bee', 'bee hive bee', false],
    ['exact', 'hive plans', 'hive plans', true],
    ['exact', 'hive plans', 'Hive-Plans', true],
    ['exact', 'hive plans', 'plans hive', false],
    ['exact', 'hive plans', 'free hive plans', false],
    ['broad', "men's", 'mens suit', true],
    ['broad', 'cafe', 'café', false],
  ])('%s %j on %j: %j', (match, text, query, stopped) => {
    expect(stops({ match, text }, query)).toBe(stopped);
  });

  test.each<MatchType>(['broad', 'phrase', 'exact'])(
    'a %s negative without a word stops nothing',
    (match) => {
      expect(stops({ match, text: '???' }, '???')).toBe(false);
      expect(stops({ match, text: '' }, 'hive')).toBe(false);
    },
  );
});
