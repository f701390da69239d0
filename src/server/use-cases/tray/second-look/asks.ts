import { counted } from '@/core';
import type { AccountLook, SendingLimits } from '@/contracts/second-look';

type Asked = {
  account: AccountLook;
  /** of who sends */
  limits: SendingLimits;
  /** how many changes are sent */
  changes: number;
  /** what they stop cost in the window, micro-units */
  costMicros: number;
  /** what who sends has sent in the 30 days before */
  sentIn30Days: number;
  /** an amount as it is read */
  money: (micros: number) => string;
};

/**
 * Why changes may not be sent without a second look, each as a clause; empty where they may.
 * @example whyAsked({ ...rules, changes: 60 }) // ['the account asks for it above 50 changes']
 */
export function whyAsked({ account, limits, changes, costMicros, sentIn30Days, money }: Asked): string[] {
  return [
    ...whyAccountAsks({ account, changes, costMicros, money }),
    ...whyOver(limits, changes, sentIn30Days),
  ];
}

/** What the account asks for, whoever sends. */
function whyAccountAsks({
  account: { always, changes: most, costMicros: mostMicros },
  changes,
  costMicros,
  money,
}: Pick<Asked, 'account' | 'changes' | 'costMicros' | 'money'>): string[] {
  if (always) return ['the account asks for it each time'];
  const why: string[] = [];
  if (most !== null && changes > most) why.push(`the account asks for it above ${counted(most, 'change')}`);
  if (mostMicros !== null && costMicros > mostMicros)
    why.push(`the account asks for it where more than ${money(mostMicros)} is stopped`);
  return why;
}

/** What goes over a person's own bounds. */
export function whyOver(
  { atOnce, in30Days }: SendingLimits,
  changes: number,
  sentIn30Days: number,
): string[] {
  const why: string[] = [];
  if (atOnce !== null && changes > atOnce)
    why.push(`you may send up to ${counted(atOnce, 'change')} at once without it`);
  if (in30Days !== null && sentIn30Days + changes > in30Days)
    why.push(
      `you may send up to ${counted(in30Days, 'change')} in 30 days without it, and have sent ${sentIn30Days}`,
    );
  return why;
}
