import * as v from 'valibot';
import {
  AccountsAnswerSchema,
  ChangesAnswerSchema,
  ClockAnswerSchema,
  FaultsSchema,
  StructureAnswerSchema,
} from '@/contracts/platform';
import { PlatformTrouble, type Platform } from './platform';

/** How long to wait for a platform that asks to slow down and does not say how long. */
const WAIT_SECONDS = 30;

/** A platform at an HTTP address, spoken to as src/contracts/platform.ts says. */
export function createHttpPlatform(base: string, timeoutMs = 60_000): Platform {
  async function call(path: string, body?: unknown, method = 'POST'): Promise<Response> {
    let response: Response;
    try {
      response = await fetch(`${base}${path}`, {
        signal: AbortSignal.timeout(timeoutMs),
        ...(body !== undefined && {
          method,
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
    if (response.status === 429)
      throw new PlatformTrouble('not yet', 'The ad platform asks to slow down.', secondsToWait(response));
    throw new PlatformTrouble(
      response.status >= 500 ? 'no answer' : 'refused',
      `The ad platform answered ${response.status}: ${said || response.statusText}`,
    );
  }

  async function json<S extends v.GenericSchema>(
    schema: S,
    path: string,
    body?: unknown,
    method?: string,
  ): Promise<v.InferOutput<S>> {
    const response = await call(path, body, method);
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
    change: (id, changes) => json(ChangesAnswerSchema, `${account(id)}/changes`, { changes }),
    moveClock: (id, days) => json(ClockAnswerSchema, `${account(id)}/clock`, { days }),
    faults: (id, faults) =>
      json(FaultsSchema, `${account(id)}/faults`, ...(faults ? ([faults, 'PUT'] as const) : [])),
  };
}

function secondsToWait({ headers }: Response): number {
  const said = Number(headers.get('retry-after') ?? NaN);
  return Number.isFinite(said) && said > 0 ? Math.min(said, 3_600) : WAIT_SECONDS;
}
