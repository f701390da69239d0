import { randomLcg, randomPoisson } from 'd3';
import { expect, test } from 'vitest';
import { likelyRange, netVariance } from './by-chance';

test('nine of ten nets lie in the range that was told, over as many days and over others', () => {
  const poisson = randomPoisson.source(randomLcg(0.2));
  const [terms, times, back] = [20, 2_000, 0.5];
  for (const stretch of [0.5, 1, 2]) {
    let within = 0;
    for (let time = 0; time < times; time++) {
      let [net, variance, real] = [0, 0, 0];
      for (let t = 0; t < terms; t++) {
        const [rate, eachMicros] = [2 + t, 1 + (t % 3)];
        const clicks = poisson(rate)();
        net += eachMicros * clicks * (1 - back);
        variance += netVariance({ eachMicros, clicks, back });
        real += eachMicros * (poisson(rate * stretch)() - poisson(rate * stretch * back)());
      }
      const [from, to] = likelyRange(net * stretch, variance, stretch);
      if (real >= from && real <= to) within += 1;
    }
    // What is seen here is one draw for here and elsewhere together, so the range is a little wide.
    expect(within / times).toBeGreaterThan(0.89);
    expect(within / times).toBeLessThan(0.99);
  }
});

test('what costs nothing, or has no click, is sure', () => {
  expect(netVariance({ eachMicros: 5, clicks: 0, back: 0 })).toBe(0);
  expect(likelyRange(7, 0, 3)).toEqual([7, 7]);
});
