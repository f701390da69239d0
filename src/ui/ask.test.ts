import { afterEach, expect, test, vi } from 'vitest';
import { ask, Declined, NoAnswer } from './ask';

const answering = (body: string, status: number) =>
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(body, { status })));
const caught = (path = '/api/web/tray') =>
  ask(path).then(
    () => undefined,
    (error: unknown) => error,
  );
afterEach(() => vi.unstubAllGlobals());

test('a refusal is the answer', async () => {
  answering('{"error":"It is there already."}', 409);
  const error = await caught();
  expect(error).toBeInstanceOf(Declined);
  expect(error).not.toBeInstanceOf(NoAnswer);
});

test.each([
  ['{"error":"The database does not answer."}', 503, false, /database/],
  ['<html>Bad gateway</html>', 502, false, /does not answer/],
  ['{"error":"Something failed here."}', 500, true, /failed here/],
])('%s with %i is none', async (body, status, isFault, said) => {
  answering(body, status);
  const error = (await caught()) as NoAnswer;
  expect(error).toBeInstanceOf(NoAnswer);
  expect([error.isFault, error.message]).toEqual([isFault, expect.stringMatching(said)]);
});

test('an answer that breaks off in its middle is none, whatever its status', async () => {
  answering('{"faults":[{"na', 200);
  expect(await caught()).toBeInstanceOf(NoAnswer);
});

test('an answer that was taken back while it came is told as that', async () => {
  const aborted = new DOMException('taken back', 'AbortError');
  const body = new ReadableStream({ start: (controller) => controller.error(aborted) });
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(body)));
  expect(await caught()).toBe(aborted);
});
