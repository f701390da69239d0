import {
  AccountsAnswerSchema,
  ChangesAnswerSchema,
  ClockAnswerSchema,
  FaultsSchema,
  StructureAnswerSchema,
} from '@/contracts/platform';
import { outsideCaller, OutsideTrouble } from '../outside';
import type { Platform } from './platform';

/** A platform at an HTTP address, spoken to as src/contracts/platform.ts says. */
export function createHttpPlatform(base: string, timeoutMs = 60_000): Platform {
  const { call, json } = outsideCaller('The ad platform', base, timeoutMs);
  const account = (id: string) => `/accounts/${encodeURIComponent(id)}`;
  return {
    accounts: async () => (await json(AccountsAnswerSchema, '/accounts')).accounts,
    structure: (id, since) => json(StructureAnswerSchema, `${account(id)}/structure?since=${since}`),
    async report(id, { from, to }) {
      const response = await call(`${account(id)}/reports?kind=search-terms&from=${from}&to=${to}`);
      if (!response.body) throw new OutsideTrouble('no answer', 'The ad platform sent an empty report.');
      return response.body as unknown as AsyncIterable<Uint8Array>;
    },
    change: (id, changes) => json(ChangesAnswerSchema, `${account(id)}/changes`, { body: { changes } }),
    moveClock: (id, days) => json(ClockAnswerSchema, `${account(id)}/clock`, { body: { days } }),
    faults: (id, faults) =>
      json(FaultsSchema, `${account(id)}/faults`, faults ? { body: faults, method: 'PUT' } : {}),
  };
}
