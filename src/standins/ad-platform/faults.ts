import type { Fault, Faults } from '@/contracts/platform';

type On = { times: number; revision: number };

/** The faults that are switched on in this process, by account; each is met by a number of requests and is gone then. */
export function createFaults() {
  const on = new Map<string, Map<Fault, On>>();
  /** Uses a fault once. @returns it as it was switched on; undefined where it is not on */
  const take = (accountId: string, fault: Fault): On | undefined => {
    const known = on.get(accountId)?.get(fault);
    if (known && --known.times === 0) on.get(accountId)!.delete(fault);
    return known;
  };
  return {
    take,
    /** In place of all that are on. @param revision of the account as it stands now */
    set(accountId: string, { faults }: Faults, revision: number): void {
      on.set(accountId, new Map(faults.map(({ fault, times }) => [fault, { times, revision }])));
    },
    left(accountId: string): Faults {
      return { faults: [...(on.get(accountId) ?? [])].map(([fault, { times }]) => ({ fault, times })) };
    },
  };
}
