import 'server-only';
import { Refusal } from '@/server/use-cases/deps';
import { isAway, webLog } from '@/server/web';

/** What a request is about, as the log tells it. */
export type About = {
  /** names the request in the log, and to the person whom it failed */
  request: string;
  route: string;
  account: string;
  person: number | null;
};

/** A read that takes longer is told in the log, ms. */
const SLOW = 1_000;

/** Notes a request that was answered: each that changes something, and of the others those that took long. */
export function noteAnswered(about: About, isDecision: boolean, startedAt: number): void {
  const ms = Math.round(performance.now() - startedAt);
  if (isDecision) webLog.info({ ...about, ms }, 'done');
  else if (ms > SLOW) webLog.info({ ...about, ms }, 'slow');
}

/** A refusal with its reason; else what is down, or that something failed. */
export function toResponse(error: unknown, about?: About): Response {
  if (Refusal.is(error)) {
    if (about) webLog.info({ ...about, status: error.status, why: error.message }, 'refused');
    return Response.json({ error: error.message }, { status: error.status });
  }
  webLog.error({ ...about, error }, 'failed');
  if (isAway(error)) return Response.json({ error: AWAY }, { status: 503 });
  const which = about ? ` (request ${about.request})` : '';
  const what = `Something failed here; the log of the web application says what${which}.`;
  return Response.json({ error: `${what} Nothing was changed.` }, { status: 500 });
}

/** What is said while the database does not answer. */
const AWAY = 'The database does not answer. Gate Post tries again by itself.';
