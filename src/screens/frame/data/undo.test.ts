import { expect, test, vi } from 'vitest';
import { doing, offerUndo, undoLast } from './undo';

vi.mock('sonner', () => ({ toast: Object.assign(vi.fn(), { error: vi.fn() }) }));

/** A work that ends when it is told to, and whoever does it, who then offers its undo. */
function start(name: string, undone: string[]) {
  let [resolve, reject] = [(_: string) => {}, (_: Error) => {}];
  const work = new Promise<string>((...both) => ([resolve, reject] = both));
  const done = doing(work).then(() => offerUndo(name, async () => void undone.push(name)));
  return { end: () => resolve(name), fail: () => reject(new Error(name)), done };
}

test('takes back what was done last, one after the other', async () => {
  const undone: string[] = [];
  for (const name of ['first', 'second']) {
    const work = start(name, undone);
    work.end();
    await work.done;
  }
  await Promise.all([undoLast(), undoLast()]);
  await undoLast();
  expect(undone).toEqual(['second', 'first']);
});

test('what is under way is waited for, and is what is taken back', async () => {
  const undone: string[] = [];
  const before = start('before', undone);
  before.end();
  await before.done;
  const meanwhile = start('meanwhile', undone);
  const undoing = undoLast();
  await new Promise(setImmediate); // whatever could run by now has run
  expect(undone).toEqual([]);
  meanwhile.end();
  await undoing;
  expect(undone).toEqual(['meanwhile']);
});

test('what fails under way leaves what was done before it', async () => {
  const undone: string[] = [];
  const before = start('before', undone);
  before.end();
  await before.done;
  const failing = start('failing', undone);
  failing.done.catch(() => undefined);
  const undoing = undoLast();
  failing.fail();
  await undoing;
  expect(undone).toEqual(['before']);
});

test('an undo that fails can be tried again', async () => {
  let tries = 0;
  offerUndo('stubborn', async () => {
    tries += 1;
    if (tries === 1) throw new Error('no answer');
  });
  await undoLast();
  await undoLast();
  expect(tries).toBe(2);
});
