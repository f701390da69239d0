import { describe, expect, test } from 'vitest';
import { locationNames } from './location-names';
import { isLocationName, locationNamer, type SaidOfLocations } from './name-locations';

const named = (text: string, said: Partial<SaidOfLocations> = {}) =>
  locationNamer({ served: ['united kingdom'], none: [], tagged: [], ...said })(text).map(({ name, kind }) => [
    name,
    kind,
  ]);

describe('locations that are not served', () => {
  test('are none while nobody said what is served', () => {
    expect(named('kiln australia', { served: [] })).toEqual([]);
  });

  test.each([
    ['a country', 'kiln australia', [['australia', 'not served']]],
    ['a country in another language', 'kiln frankreich', [['frankreich', 'not served']]],
    ['a city of several words', 'kiln new york', [['new york', 'not served']]],
    ['an ordinary word', 'kiln nice', [['nice', 'perhaps']]],
    ['an ordinary word of a few letters', 'kiln in or of', []],
    ['what is served', 'kiln united kingdom', []],
    ['its abbreviation', 'kiln uk', []],
    ['a city in it', 'kiln leeds', []],
    ['a city of that name in it as well', 'kiln birmingham', []],
    [
      'two of them',
      'sydney kiln toronto',
      [
        ['sydney', 'not served'],
        ['toronto', 'not served'],
      ],
    ],
    ['no location', 'kiln wheel', []],
  ])('%s', (_, text, expected) => {
    expect(named(text)).toEqual(expected);
  });

  test('where a city is served, its country is not told of, and the others in it are', () => {
    expect(named('kiln leeds', { served: ['leeds'] })).toEqual([]);
    expect(named('kiln england united kingdom', { served: ['leeds'] })).toEqual([]);
    expect(named('kiln glasgow', { served: ['leeds'] })).toEqual([['glasgow', 'not served']]);
  });

  test('what people say goes before what is known', () => {
    expect(named('kiln nice', { none: ['nice'] })).toEqual([]);
    expect(named('kiln hobbington', { tagged: ['hobbington'] })).toEqual([['hobbington', 'not served']]);
    expect(named('kiln hobbington', { tagged: ['hobbington'], served: ['hobbington'] })).toEqual([]);
  });

  test('names are known as people write them', () => {
    expect(['Ireland', ' leeds ', 'Larkfell-on-Sea', ''].map(isLocationName)).toEqual([
      true,
      true,
      false,
      false,
    ]);
    expect(locationNames([])).not.toContain('uk');
    expect(locationNames(['hobbington'])).toContain('hobbington');
  });
});
