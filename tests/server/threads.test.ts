import path from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { TakenBack } from '@/server/compute/taken-back';
import { createBroker } from '@/server/threads/broker';
import { listTerms } from '@/server/use-cases/sift/sift-terms';
import { TermsQuerySchema, type TermsQuery } from '@/contracts/sift';
import { startThreads, type Threads } from '@/server/threads/threads';
import * as v from 'valibot';
import { makeWorld, type World } from '../support/world';

let world: World;
let threads: Threads;

const start = (over: Partial<Parameters<typeof startThreads>[0]> = {}) =>
  startThreads({
    file: path.resolve('src/server/threads/worker.ts'),
    execArgv: ['--import', 'tsx'],
    threads: 2,
    mostBytes: 100_000_000,
    ...over,
  });
const query = (over: Record<string, string> = {}): TermsQuery => v.parse(TermsQuerySchema, over);

beforeEach(async () => {
  world = await makeWorld();
  process.env.GATEPOST_DATABASE_URL = world.url;
  threads = start();
});
afterEach(async () => {
  await threads.close();
  await world.close();
});

describe('questions to the threads', () => {
  test('are answered as the use-case answers them', async () => {
    const direct = await listTerms(world.deps, world.slug, query());
    expect(direct.total).toBeGreaterThan(3);
    expect(await threads.ask('listTerms', [world.slug, query()])).toEqual(direct);
  });

  test('read a window once, however many threads ask, and again when the data changed', async () => {
    const many = () =>
      Promise.all(Array.from({ length: 12 }, () => threads.ask('listTerms', [world.slug, query()])));
    const answers = await many();
    expect(new Set(answers.map((a) => JSON.stringify(a))).size).toBe(1);
    expect(threads.counts()).toMatchObject({ built: 2, held: 2 }); // the window, and what all days brought
    expect(threads.counts().bytes).toBeGreaterThan(0);
    await world.load(
      'Search term,Campaign,Ad group,Day,Clicks,Cost\nnew words,Hives,Starter,2026-11-18,3,1.50\n',
    );
    const [after] = await many();
    expect(after!.total).toBe(answers[0]!.total + 1);
    expect(threads.counts().built).toBe(4);
  });

  test('what is refused is refused with the same words', async () => {
    await expect(threads.ask('listTerms', ['nobody', query()])).rejects.toMatchObject({
      name: 'Refusal',
      status: 404,
      message: 'There is no account nobody.',
    });
  });

  test('changes are made in a thread, and seen by the next question', async () => {
    const change = {
      kind: 'add negative',
      text: 'movie',
      match: 'phrase',
      place: { kind: 'account', id: null },
    } as const;
    const before = await threads.ask('listTerms', [world.slug, query()]);
    const [outcome] = await threads.ask('draftChanges', [world.slug, world.personId, [{ change }]]);
    expect(outcome!.outcome).toBe('drafted');
    const after = await threads.ask('listTerms', [world.slug, query()]);
    expect(after.total).toBeLessThan(before.total);
  });
});

describe('a request that takes long', () => {
  const NOTHING = { shown: 'open' as const };

  test('tells how far it is until it is answered', async () => {
    const trx = await world.db.transaction();
    await trx.raw('lock table left_knot in access exclusive mode'); // it is read when all is found
    const view = threads.ask('viewConflicts', [world.slug, NOTHING]);
    await vi.waitFor(() => expect(threads.working(world.slug)).toHaveLength(1), { timeout: 30_000 });
    expect(threads.working('another')).toEqual([]);
    await trx.rollback();
    expect((await view).counts.open).toBe(0);
    expect(threads.working(world.slug)).toEqual([]);
  });

  test('ends in the middle of a computation when it is taken back', async () => {
    const { default: answer } = await import('@/server/threads/worker');
    const ask = async (takenBack: 0 | 1) => {
      const { port1, port2 } = new MessageChannel();
      createBroker(1e6).serve(port1);
      const task = { name: 'viewConflicts' as const, args: [world.slug, NOTHING] };
      return answer({ ...task, takenBack: Int32Array.of(takenBack), port: port2 });
    };
    await expect(ask(1)).rejects.toThrow(TakenBack);
    expect(await ask(0)).toMatchObject({ ok: true });
  });
});

describe('when something goes wrong', () => {
  test('a thread that falls is replaced, and its question asked again', async () => {
    await threads.ask('listTerms', [world.slug, query()]);
    const answers = Array.from({ length: 6 }, (_, i) =>
      threads.ask('listTerms', [world.slug, query({ days: `${20 + i}` })]),
    );
    await Promise.all(threads.pool.threads.map((thread) => thread.terminate()));
    for (const answer of await Promise.all(answers)) expect(answer.total).toBeGreaterThan(3);
    expect((await threads.ask('listTerms', [world.slug, query()])).total).toBeGreaterThan(3);
  });

  test('a question that is taken back ends at once, and the others go on', async () => {
    const goes = new AbortController();
    const gone = threads.ask('listTerms', [world.slug, query({ days: '60' })], goes.signal);
    const stays = threads.ask('listTerms', [world.slug, query({ days: '60' })]);
    goes.abort(new Error('the page was left'));
    await expect(gone).rejects.toThrow('the page was left');
    expect((await stays).total).toBeGreaterThan(3);
    await expect(threads.ask('listTerms', [world.slug, query()], goes.signal)).rejects.toThrow(
      'the page was left',
    );
  });

  test('no more is held than may be; the least recently used goes first', async () => {
    await threads.close();
    threads = start({ mostBytes: 1, threads: 1 });
    for (const days of ['10', '20', '10']) await threads.ask('listTerms', [world.slug, query({ days })]);
    expect(threads.counts()).toMatchObject({ held: 1 });
  });
});
