import * as v from 'valibot';

/** How services outside are spoken to: the ad platform, the idea source. */

/**
 * A service did not do what was asked.
 *  - no answer: it may or may not have done it
 *  - not yet: it did nothing, and is to be asked again after some seconds
 *  - refused: it understood and said no; saying it again is of no use
 */
export class OutsideTrouble extends Error {
  override name = 'OutsideTrouble';
  constructor(
    readonly kind: 'no answer' | 'not yet' | 'refused',
    message: string,
    /** seconds to wait before asking again, where the service said so */
    readonly waitSeconds?: number,
  ) {
    super(message);
  }
}

/** How long to wait for a service that asks to slow down and does not say how long. */
const WAIT_SECONDS = 30;

type Sent = { method?: string; body?: unknown };

/**
 * Calls a service at an HTTP address.
 * @param name as messages call it: “The ad platform”
 */
export function outsideCaller(name: string, base: string, timeoutMs: number) {
  /** @throws OutsideTrouble unless it answers with success */
  async function call(path: string, { body, method = 'POST' }: Sent = {}): Promise<Response> {
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
      throw new OutsideTrouble('no answer', `${name} ${what}.`);
    }
    if (response.ok) return response;
    const said = ((await response.json().catch(() => ({}))) as { error?: string }).error ?? '';
    if (response.status === 429)
      throw new OutsideTrouble('not yet', `${name} asks to slow down.`, secondsToWait(response));
    throw new OutsideTrouble(
      response.status >= 500 ? 'no answer' : 'refused',
      `${name} answered ${response.status}: ${said || response.statusText}`,
    );
  }

  return {
    call,
    /** @throws OutsideTrouble unless it answers as the schema says */
    async json<S extends v.GenericSchema>(schema: S, path: string, sent?: Sent): Promise<v.InferOutput<S>> {
      const response = await call(path, sent);
      const parsed = v.safeParse(schema, await response.json().catch(() => undefined));
      if (parsed.success) return parsed.output;
      throw new OutsideTrouble(
        'refused',
        `The answer of ${name.charAt(0).toLowerCase()}${name.slice(1)} is not understood: ${parsed.issues[0].message}`,
      );
    },
  };
}

function secondsToWait({ headers }: Response): number {
  const said = Number(headers.get('retry-after') ?? NaN);
  return Number.isFinite(said) && said > 0 ? Math.min(said, 3_600) : WAIT_SECONDS;
}
