import * as v from 'valibot';
import {
  AccountsAnswerSchema,
  ChangesAnswerSchema,
  ClockAnswerSchema,
  StructureAnswerSchema,
} from '@/contracts/platform';
import { PlatformTrouble, type Platform } from './platform';

/** A platform at an HTTP address, spoken to as src/contracts/platform.ts says. */
export function createHttpPlatform(base: string, timeoutMs = 60_000): Platform {
  async function call(path: string, body?: unknown): Promise<Response> {
    let response: Response;
    try {
      response = await fetch(`${base}${path}`, {
        signal: AbortSignal.timeout(timeoutMs),
        ...(body !== undefined && {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        }),
      });
    } catch (error) {
      const slow = error instanceof Error && error.name === 'TimeoutError';
      const what = slow ? `did not answer within ${timeoutMs / 1000} seconds` : 'can not be reached';
      throw new PlatformTrouble('no answer', `The ad platform ${what}.`);
    }
    if (response.ok) return response;
    const said = ((await response.json().catch(() => ({}))) as { error?: string }).error ?? '';
    throw new PlatformTrouble(
      response.status >= 500 ? 'no answer' : 'refused',
      `The ad platform answered ${response.status}: ${said || response.statusText}`,
    );
  }

  async function json<S extends v.GenericSchema>(
    schema: S,
    path: string,
    body?: unknown,
  ): Promise<v.InferOutput<S>> {
    const response = await call(path, body);
    const parsed = v.safeParse(schema, await response.json().catch(() => undefined));
    if (parsed.success) return parsed.output;
    throw new PlatformTrouble(
      'refused',
      `The ad platform's answer is not understood: ${parsed.issues[0].message}`,
    );
  }

  const account = (id: string) => `/accounts/${encodeURIComponent(id)}`;
  return {
    accounts: async () => (await json(AccountsAnswerSchema, '/accounts')).accounts,
    structure: (id, since) => json(StructureAnswerSchema, `${account(id)}/structure?since=${since}`),
    async report(id, { from, to }) {
      const response = await call(`${account(id)}/reports?kind=search-terms&from=${from}&to=${to}`);
      if (!response.body) throw new PlatformTrouble('no answer', 'The ad platform sent an empty report.');
      return response.body as unknown as AsyncIterable<Uint8Array>;
    },
    change: async (id, changes) =>
      (await json(ChangesAnswerSchema, `${account(id)}/changes`, { changes })).answers,
    moveClock: (id, days) => json(ClockAnswerSchema, `${account(id)}/clock`, { days }),
  };
}
