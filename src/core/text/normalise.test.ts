import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { normalise, words } from './normalise';

describe('normalise', () => {
  test.each([
    ["men's bee suit", 'mens bee suit'],
    ['men’s', 'mens'],
    ['  Bee-Hive   KIT!! ', 'bee hive kit'],
    ['café', 'café'],
    ['cafe\u0301', 'café'],
    ['ＨＩＶＥ', 'hive'],
    ['bees & honey', 'bees & honey'],
    ['b&q', 'b&q'],
    ['1/2" frame', '1 2 frame'],
    ['½ frame', '1 2 frame'],
    ['hi\u200Bve', 'hive'],
    ['hive\uFE0F', 'hive'],
    ['\u0301hive', 'hive'],
    ['a\u20DDb', 'ab'],
    ['???', ''],
    ['', ''],
    ['蜂蜜 抽出', '蜂蜜 抽出'],
    ['STRASSE ẞ', 'strasse ß'],
    ['<script>alert(1)</script>', 'script alert 1 script'],
    ['=cmd()', 'cmd'],
    ['a\u0000b', 'a b'],
  ])('%j becomes %j', (raw, text) => {
    expect(normalise(raw)).toBe(text);
  });

  test('normalising twice changes nothing, whatever the text', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 30 }), (raw) => {
        const once = normalise(raw);
        expect(normalise(once)).toBe(once);
        expect(once).toMatch(/^$|^\S+( \S+)*$/u);
      }),
      { numRuns: 5_000 },
    );
  });

  test('every single character of Unicode is treated the same the second time', () => {
    for (let code = 0; code < 0x30000; code++) {
      if (code >= 0xd800 && code <= 0xdfff) continue;
      const once = normalise(`a${String.fromCodePoint(code)}`);
      if (normalise(once) !== once) throw new Error(`U+${code.toString(16)}: ${once}`);
    }
  });
});

describe('words', () => {
  test('are the pieces between spaces of the normalised text', () => {
    expect(words('Queen-bee, marked')).toEqual(['queen', 'bee', 'marked']);
    expect(words('Bees & honey')).toEqual(['bees', '&', 'honey']);
  });
  test('a text without a word has none', () => {
    expect(words(' … ?! ')).toEqual([]);
  });
});
