import 'server-only';
import { randomUUID } from 'node:crypto';
import * as v from 'valibot';
import { StoredNumberSchema, type DoneSchema } from '@/contracts/common';
import { ROUTES, type Name, type Route, type Routes } from '@/contracts/routes';
import { sayVersions, VERSIONS_HEADER } from '@/contracts/versions';
import type { AnswerOf, ArgsOf, RequestName } from '@/server/threads/requests';
import { noteAnswered, toResponse, type About } from './tell';
import { refusalOf } from '@/let-in';
import { webDeps, webSignIns, webThreads } from '@/server/web';
import { Refusal, type Deps, type SignInDeps } from '@/server/use-cases/deps';
import { feelPulse } from '@/server/use-cases/account/describe-account';
import { noteExport } from '@/server/use-cases/account/exports';
import { permit, permitAdding } from '@/server/use-cases/account/permit';
import { whoAsks } from './who-asks';

type Asked<N extends Name> = {
  deps: Deps;
  /** of the account; empty where the route is of the whole of Gate Post */
  slug: string;
  params: Record<string, string | undefined>;
  query: OutputOf<N, 'query'>;
  body: OutputOf<N, 'body'>;
  /** who asks; null where nobody is known yet, so that only the first account can be added */
  personId: N extends `${string} /${string}` ? number | null : number;
  /** for a body that is a file */
  request: Request;
  url: URL;
  /** what signs people in */
  signIns: SignInDeps['signIns'];
  /** Lets the answer set cookies. */
  setCookies(cookies: readonly string[]): void;
  /** Puts a request to a worker thread; it is taken back when the browser goes away. */
  ask<Q extends RequestName>(name: Q, ...args: ArgsOf<Q>): Promise<AnswerOf<Q>>;
};

type OutputOf<N extends Name, Key extends 'query' | 'body'> = Routes[N] extends { [K in Key]: infer S }
  ? S extends v.GenericSchema
    ? v.InferOutput<S>
    : undefined
  : undefined;

/** What the work of a route comes to; nothing, where nothing is to be said but that it was done. */
type Result<N extends Name> = Routes[N]['answer'] extends v.GenericSchema
  ? // eslint-disable-next-line @typescript-eslint/no-invalid-void-type -- a work that only does something returns nothing
    v.InferInput<Routes[N]['answer']> | (Routes[N]['answer'] extends typeof DoneSchema ? void : never)
  : FileAnswer;

/** Held against their schemas where the product is tested; a person does not wait for that. */
const CHECKS_ANSWERS = process.env.NODE_ENV === 'test' || process.env.GATEPOST_CHECK_ANSWERS === '1';

/**
 * The handler of a route: who asks must have the role that the route needs, and what is asked is held against the route's
 * schemas. A file that is saved is noted. A refusal becomes an answer with its
 * reason; anything else is logged and told without detail. The answer of a route that changes something brings the
 * versions of the account with it, before and after, in the header `VERSIONS_HEADER`.
 */
export function serve<N extends Name>(
  name: N,
  work: (asked: Asked<N>) => Promise<Result<N>> | Result<N>,
): Handler {
  const route: Route = ROUTES[name];
  return lettingIn(async (request, about) => {
    const told: About = { request: randomUUID().slice(0, 8), route: name, account: '', person: null };
    const startedAt = performance.now();
    try {
      // A route without a dynamic part is given no params.
      const params = (await about.params) ?? {};
      const url = new URL(request.url);
      for (const text of [...Object.values<string>(params), ...url.searchParams.values()]) requireText(text);
      const deps = webDeps();
      const slug = params.account ?? '';
      told.account = slug;
      const personId = await actingPerson(deps, name.includes(' /') ? null : slug, route);
      told.person = personId;
      const query = route.query && parse(route.query, Object.fromEntries(url.searchParams));
      const body = route.body && route.body !== 'file' ? await parseBody(request, route.body) : undefined;
      const before = route.changes && (await feelPulse(deps, slug));
      const cookies: string[] = [];
      const asked = {
        get signIns() {
          return webSignIns();
        },
        setCookies: (more) => void cookies.push(...more),
        ...{ deps, slug, params, query, body, personId, request, url },
        ask: (name, ...args) => webThreads().ask(name, args, request.signal),
      } as Asked<N>;
      const result = await work(asked);
      noteAnswered(told, route.changes !== undefined, startedAt);
      if (result instanceof FileAnswer) {
        if (personId !== null && slug !== '') await noteExport(deps, slug, personId, result.name);
        return result;
      }
      if (CHECKS_ANSWERS && route.answer !== 'file') checkAnswer(name, route.answer, result ?? {});
      const answer = Response.json(result ?? {}, {
        ...(before && { headers: { [VERSIONS_HEADER]: sayVersions(before, await feelPulse(deps, slug)) } }),
      });
      for (const cookie of cookies) answer.headers.append('set-cookie', cookie);
      return answer;
    } catch (error) {
      // Who asked went away, and took the request back.
      if (request.signal.aborted) return new Response(null, { status: 499 });
      return toResponse(error, told);
    }
  });
}

/**
 * Who asks by a route, once it is known that he or she may.
 * @returns null where nobody need be known
 * @throws Refusal when somebody has to sign in first, or may not
 */
async function actingPerson(deps: Deps, slug: string | null, { role }: Route): Promise<number | null> {
  if (role === 'anybody') return null;
  const who = await whoAsks();
  if (role === 'oneself') return who;
  return slug === null ? permitAdding(deps, who) : (await permit(deps, slug, who, role)).id;
}

/** @throws Error naming the field that the schema of the answer does not have, or has otherwise */
function checkAnswer(name: Name, schema: v.GenericSchema, answer: unknown): void {
  const parsed = v.safeParse(schema, answer);
  if (parsed.success) return;
  const [issue] = parsed.issues;
  throw new Error(`${name} must answer by its schema; at ${v.getDotPath(issue)}: ${issue.message}`);
}

type Handler = (request: Request, about: { params?: Promise<Record<string, string>> }) => Promise<Response>;

/** Lets in only what `refusalOf` does not refuse. The proxy leaves all of `/api` out, so each handler there passes through this. */
export function lettingIn(handler: Handler): Handler {
  return async (request, about) => {
    const error = refusalOf(request);
    return error === undefined ? handler(request, about) : Response.json({ error }, { status: 403 });
  };
}

/** The bytes of a file, and how many the browser says there are: by the header, and by the size that it told. */
export function bodyOf(
  request: Request,
  url: URL,
): { bytes: AsyncIterable<Uint8Array>; announced: number | null } {
  if (!request.body) throw new Refusal('The file is empty. Nothing was stored.');
  const told = url.searchParams.get('size') ?? request.headers.get('content-length');
  const announced = told !== null && /^\d{1,15}$/.test(told) ? Number(told) : null;
  return { bytes: request.body as unknown as AsyncIterable<Uint8Array>, announced };
}

/** Of the body of a request that is no file. */
const MOST_BYTES = 40_000_000;

/** @throws Refusal naming the field that is not as it must be */
async function parseBody<S extends v.GenericSchema>(request: Request, schema: S): Promise<v.InferOutput<S>> {
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > MOST_BYTES)
    throw new Refusal(
      `This is too much at once: ${Math.round(announced / 1e6)} MB, and at most ${MOST_BYTES / 1e6} are taken. Bring it in parts, or as a file to Intake. Nothing was changed.`,
      413,
    );
  const text = await request.text();
  let body: unknown;
  try {
    body = JSON.parse(text, (name, value: unknown) => {
      requireText(name);
      if (typeof value === 'string') requireText(value);
      return value;
    });
  } catch (error) {
    if (Refusal.is(error)) throw error;
    throw new Refusal('The request holds no JSON. Nothing was changed.');
  }
  return parse(schema, body);
}

/** @throws Refusal for what nobody types and the database does not keep: the character 0, and half of a character */
function requireText(text: string): void {
  if (text.includes('\0') || /\p{Surrogate}/u.test(text))
    throw new Refusal('A text holds a character that none may hold. Nothing was changed.');
}

function parse<S extends v.GenericSchema>(schema: S, value: unknown): v.InferOutput<S> {
  const parsed = v.safeParse(schema, value);
  if (parsed.success) return parsed.output;
  throw new Refusal(sayIssue(parsed.issues[0]));
}

/** The words of the schema where it has some of its own; those of the package are for who writes requests by hand. */
function sayIssue(issue: v.BaseIssue<unknown>): string {
  const field = v.getDotPath(issue);
  const said = `${field ? `${field}: ` : ''}${issue.message}`;
  return issue.message.startsWith('Invalid ')
    ? `The request is not as it must be (${said}). Nothing was changed.`
    : said;
}

/** @throws Refusal unless the text is a whole number */
export function parseId(text: string | undefined): number {
  const parsed = v.safeParse(StoredNumberSchema, Number(text));
  if (!parsed.success) throw new Refusal('There is nothing of this number.', 404);
  return parsed.output;
}

/** A file to be saved under its name. */
class FileAnswer extends Response {
  constructor(
    readonly name: string,
    type: string,
    content: string | Uint8Array<ArrayBuffer>,
  ) {
    const disposition = `attachment; filename*=UTF-8''${encodeURIComponent(name)}`;
    super(content, { headers: { 'content-type': type, 'content-disposition': disposition } });
  }
}

/** A file to be saved, of bytes or a text. */
export function saved(file: {
  name: string;
  type: string;
  content: string | Uint8Array<ArrayBuffer>;
}): FileAnswer {
  return new FileAnswer(file.name, file.type, file.content);
}

/** CSV to be saved under a name. */
export function sheet(name: string, csv: string): FileAnswer {
  return new FileAnswer(name, 'text/csv; charset=utf-8', csv);
}
