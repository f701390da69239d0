import { expect, test } from 'vitest';
import { warmerOf } from './warm-up';

test('all windows are made ready once, then those whose data changed; what failed is tried again', async () => {
  const versions = new Map([
    ['web', 3],
    ['market', 7],
  ]);
  const opened: string[] = [];
  let isDown = false;
  const look = warmerOf(
    () => Promise.resolve(versions),
    async (slug) => {
      if (isDown) throw new Error('the database is away');
      opened.push(slug);
    },
  );
  await look();
  await look();
  expect(opened).toEqual(['web', 'market']);

  versions.set('market', 8);
  isDown = true;
  await expect(look()).rejects.toThrow('away');
  isDown = false;
  await look();
  expect(opened).toEqual(['web', 'market', 'market']);
});
