import { describe, expect, test } from 'vitest';
import { Declined, NoAnswer } from './ask';
import { createOutbox, type Store } from './outbox';

function aStore(initial: string | null = null): Store & { kept: () => string | null } {
  let kept = initial;
  return { getItem: () => kept, setItem: (_, value) => void (kept = value), kept: () => kept };
}
const decision = (said: string) => ({ path: `/api/${said}`, method: 'POST', body: { said }, said });

/** A server that answers, declines or is away. */
function aServer() {
  const got: string[] = [];
  const server = {
    got,
    mood: 'answers' as 'answers' | 'away' | 'declines',
    send: ({ said }: { said: string }): Promise<unknown> => {
      if (server.mood === 'away') return Promise.reject(new NoAnswer());
      if (server.mood === 'declines') return Promise.reject(new Declined(`not ${said}`));
      got.push(said);
      return Promise.resolve({ done: said });
    },
  };
  return server;
}

describe('decisions without a connection', () => {
  test('are kept in order, over a reload, and sent once when it is back', async () => {
    const [store, server] = [aStore(), aServer()];
    const before = createOutbox(store, server.send);
    expect(await before.send(decision('a'))).toEqual({ state: 'answered', answer: { done: 'a' } });
    server.mood = 'away';
    expect(await before.send(decision('b'))).toEqual({ state: 'waits' });
    expect(await before.send(decision('c'))).toEqual({ state: 'waits' });

    const after = createOutbox(store, server.send);
    expect(after.waiting().map((w) => w.said)).toEqual(['b', 'c']);
    await after.flush();
    expect(after.waiting()).toHaveLength(2);
    server.mood = 'answers';
    await Promise.all([after.flush(), after.flush()]);
    expect(server.got).toEqual(['a', 'b', 'c']);
    expect(after.waiting()).toEqual([]);
    expect(store.kept()).toBe('[]');
  });

  test('a new one does not overtake what waits', async () => {
    const server = aServer();
    const outbox = createOutbox(aStore(), server.send);
    server.mood = 'away';
    await outbox.send(decision('a'));
    server.mood = 'answers';
    await outbox.send(decision('b'));
    expect(server.got).toEqual([]);
    await outbox.flush();
    expect(server.got).toEqual(['a', 'b']);
  });

  test('one at which the server fails again and again is kept, and the others go on', async () => {
    const server = aServer();
    const outbox = createOutbox(aStore(), (one) =>
      one.said === 'bad' ? Promise.reject(new NoAnswer('it failed', true)) : server.send(one),
    );
    await outbox.send(decision('bad'));
    await outbox.send(decision('good'));
    for (let tries = 0; tries < 4; tries++) {
      await outbox.flush();
      expect(server.got).toEqual([]);
    }
    await outbox.flush();
    expect(server.got).toEqual(['good']);
    expect(outbox.waiting()).toMatchObject([{ said: 'bad', stuck: 'it failed' }]);
    expect(await outbox.send(decision('later'))).toMatchObject({ state: 'answered' }); // it holds up nobody
    outbox.retry();
    expect(outbox.waiting()).toMatchObject([{ said: 'bad' }]);
    expect(outbox.waiting()[0]).not.toHaveProperty('stuck');
    outbox.drop(outbox.waiting()[0]!.id);
    expect(outbox.waiting()).toEqual([]);
  });

  test('what the server declines later is told, and the others go on', async () => {
    const server = aServer();
    const outbox = createOutbox(aStore(), server.send);
    const told: unknown[] = [];
    outbox.onOutcome = (outcome) => told.push(outcome);
    server.mood = 'away';
    await outbox.send(decision('a'));
    server.mood = 'declines';
    await outbox.flush();
    expect(told).toEqual([{ said: 'a', declined: 'not a' }]);
    expect(outbox.waiting()).toEqual([]);
  });

  test('what the server declines at once is the caller’s to show', async () => {
    const server = aServer();
    server.mood = 'declines';
    await expect(createOutbox(aStore(), server.send).send(decision('a'))).rejects.toThrow('not a');
  });

  test.each(['{', '7', '[{"path":1},null]'])('%s left by something else is passed over', (kept) => {
    expect(createOutbox(aStore(kept)).waiting()).toEqual([]);
  });
});
