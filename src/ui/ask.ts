/** What the server said when it did not do what was asked; the message can be shown as it is. */
export class Declined extends Error {
  override name = 'Declined';
}

/** Who asks has to sign in first. */
export class SignedOut extends Declined {
  override name = 'SignedOut';
}

/** Nobody answered, or who answered could not do it now: whether it was done is not known. */
export class NoAnswer extends Declined {
  override name = 'NoAnswer';
  /**
   * @param message what is down, where that is known
   * @param isFault the server answers, and fails at this: asked again, it may fail again
   */
  constructor(
    message = NO_ANSWER,
    readonly isFault = false,
  ) {
    super(message);
  }
}

export const NO_ANSWER =
  'Gate Post does not answer. Nothing was changed. See whether it still runs, and try again.';

/** Asks the server for JSON. @throws Declined with the server's reason; SignedOut; NoAnswer when it does not answer, or fails */
export async function ask<T>(
  path: string,
  init?: {
    method: string;
    body?: unknown;
    signal?: AbortSignal;
    /** is told the headers of an answer */
    onHeaders?: (headers: Headers) => void;
  },
): Promise<T> {
  let response: Response;
  try {
    const { body, onHeaders: _, ...rest } = init ?? {};
    const isFile = body instanceof Blob;
    response = await fetch(path, {
      ...rest,
      ...(body !== undefined && {
        body: isFile ? body : JSON.stringify(body),
        headers: { 'content-type': isFile ? 'application/octet-stream' : 'application/json' },
      }),
    });
  } catch (error) {
    if (isAbort(error)) throw error;
    throw new NoAnswer();
  }
  let answer: T & { error?: string };
  try {
    answer = (await response.json()) as typeof answer;
  } catch (error) {
    if (isAbort(error)) throw error;
    if (response.ok) throw new NoAnswer(); // it broke off in the middle of its answer
    answer = { error: NO_ANSWER } as typeof answer;
  }
  // A 500 is no answer to what was asked, a 502 or a 503 says that nobody is there to give one.
  if (response.status >= 500) throw new NoAnswer(answer.error ?? NO_ANSWER, response.status === 500);
  if (response.status === 401) throw new SignedOut(answer.error);
  if (!response.ok) throw new Declined(answer.error ?? NO_ANSWER);
  init?.onHeaders?.(response.headers);
  return answer;
}

function isAbort(error: unknown): boolean {
  return error instanceof DOMException && error.name === 'AbortError';
}
