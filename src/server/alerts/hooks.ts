import { createHmac } from 'node:crypto';
import type { HookBody } from '@/contracts/alerts';
import { OutsideTrouble } from '../outside';

/** Calls web hooks. */
export type Hooks = {
  /** @throws OutsideTrouble unless it answers with success */
  call(hook: { address: string; secret: string }, body: HookBody, now: Date): Promise<void>;
};

/** The signature of a body: `t=SECONDS,v1=HEX`, an HMAC-SHA-256 of `SECONDS.BODY`. */
export function signatureOf(secret: string, text: string, now: Date): string {
  const seconds = Math.floor(now.getTime() / 1_000);
  return `t=${seconds},v1=${createHmac('sha256', secret).update(`${seconds}.${text}`).digest('hex')}`;
}

/** Hooks by HTTP, which follow no redirect. */
export function createHooks(timeoutMs = 20_000): Hooks {
  return {
    async call({ address, secret }, body, now) {
      const text = JSON.stringify(body);
      let response: Response;
      try {
        response = await fetch(address, {
          ...{ method: 'POST', body: text, redirect: 'manual', signal: AbortSignal.timeout(timeoutMs) },
          headers: {
            'content-type': 'application/json',
            'gatepost-delivery': body.delivery,
            'gatepost-signature': signatureOf(secret, text, now),
          },
        });
      } catch {
        throw new OutsideTrouble('no answer', 'The hook did not answer.');
      }
      await response.body?.cancel();
      if (response.ok) return;
      const isLasting = response.status === 410 || response.status === 404;
      throw new OutsideTrouble(
        isLasting ? 'refused' : 'not yet',
        `The hook answered with ${response.status}.`,
      );
    },
  };
}
