import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import * as v from 'valibot';

/** What the stand-ins have in common as HTTP servers. */

/** An answer other than 200, with its reason. */
export class Refused extends Error {
  override name = 'Refused';
  constructor(
    readonly status: number,
    message: string,
    /** seconds after which the same may be asked again */
    readonly retryAfter?: number,
  ) {
    super(message);
  }
}

/** An answer that people read. */
export class Page {
  constructor(readonly html: string) {}
}

/** The connection is closed without an answer. */
export class HungUp extends Error {
  override name = 'HungUp';
}

/**
 * A server that answers each request by a function; the caller makes it listen. A text goes out as CSV, a page as HTML, all else as JSON.
 * @param answer throws Refused or HungUp; whatever else it throws is told as a failure of the stand-in
 */
export function serveStandin(answer: (request: IncomingMessage) => Promise<unknown>): Server {
  return createServer((request, response) => {
    answer(request).then(
      (body) => send(response, 200, body),
      (error: unknown) => {
        if (error instanceof HungUp) response.destroy();
        else if (error instanceof Refused) {
          if (error.retryAfter !== undefined) response.setHeader('retry-after', error.retryAfter);
          send(response, error.status, { error: error.message });
        } else {
          console.error(error);
          send(response, 500, { error: 'The stand-in failed; see its log.' });
        }
      },
    );
  });
}

/**
 * Reads a JSON body.
 * @param most bytes
 * @throws Refused when it is too large, no JSON, or not what the schema says
 */
export async function readBody<S extends v.GenericSchema>(
  request: IncomingMessage,
  schema: S,
  most: number,
): Promise<v.InferOutput<S>> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > most) throw new Refused(413, 'The body is too large.');
    parts.push(part);
  }
  let body: unknown;
  try {
    body = JSON.parse(Buffer.concat(parts).toString('utf8'));
  } catch {
    throw new Refused(400, 'The body is not JSON.');
  }
  return parseOr400(schema, body, 'body');
}

/** The parameters of an address. @throws Refused where they are not what the schema says */
export function readQuery<S extends v.GenericSchema>(url: URL, schema: S): v.InferOutput<S> {
  return parseOr400(schema, Object.fromEntries(url.searchParams), 'query');
}

function parseOr400<S extends v.GenericSchema>(schema: S, value: unknown, whole: string): v.InferOutput<S> {
  const parsed = v.safeParse(schema, value);
  if (parsed.success) return parsed.output;
  const [issue] = parsed.issues;
  throw new Refused(400, `${v.getDotPath(issue) ?? whole}: ${issue.message}`);
}

/** Ends a server when the process is told to end. @param after what is to be closed behind it */
export function endWithProcess(
  server: Server,
  after: () => Promise<unknown> = () => Promise.resolve(),
): void {
  for (const signal of ['SIGTERM', 'SIGINT'] as const) {
    process.on(signal, () => {
      server.close(() => void after().then(() => process.exit(0)));
      server.closeAllConnections();
    });
  }
}

function send(response: ServerResponse, status: number, body: unknown) {
  const [type, text] =
    typeof body === 'string'
      ? ['text/csv; charset=utf-8', body]
      : body instanceof Page
        ? ['text/html; charset=utf-8', body.html]
        : ['application/json', JSON.stringify(body)];
  response.writeHead(status, { 'content-type': type, 'x-content-type-options': 'nosniff' });
  response.end(text);
}
