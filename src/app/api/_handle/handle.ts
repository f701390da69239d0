import 'server-only';
import { cookies } from 'next/headers';
import * as v from 'valibot';
import { PERSON_COOKIE } from '@/contracts/common';
import type { AnswerOf, ArgsOf, QuestionName } from '@/server/threads/questions';
import { webDeps, webThreads } from '@/server/web';
import { Refusal, type Deps } from '@/server/use-cases/deps';
import { listAccountsAndPeople } from '@/server/use-cases/describe-account';

type Params = Record<string, string>;
type Asked = {
  deps: Deps;
  slug: string;
  params: Params;
  url: URL;
  request: Request;
  /** Puts a question to a worker thread; it is taken back when the browser goes away. */
  ask<Q extends QuestionName>(name: Q, ...args: ArgsOf<Q>): Promise<AnswerOf<Q>>;
};

/** A route that reads. Refusals become answers with their reason; anything else is logged and told without detail. */
export function reads(work: (asked: Asked) => Promise<unknown>) {
  return async (request: Request, { params }: { params: Promise<Params> }): Promise<Response> => {
    try {
      const known = await params;
      const result = await work({
        deps: webDeps(),
        slug: known.account ?? '',
        params: known,
        url: new URL(request.url),
        request,
        ask: (name, ...args) => webThreads().ask(name, args, request.signal),
      });
      return result instanceof Response ? result : Response.json(result ?? {});
    } catch (error) {
      // Who asked went away, and took the question back.
      if (request.signal.aborted) return new Response(null, { status: 499 });
      return toResponse(error);
    }
  };
}

/** A route that writes, in the name of the person chosen in the top strip. */
export function writes(work: (asked: Asked & { personId: number }) => Promise<unknown>) {
  return reads(async (asked) => work({ ...asked, personId: await requirePerson(asked.deps) }));
}

async function requirePerson(deps: Deps): Promise<number> {
  const chosen = Number((await cookies()).get(PERSON_COOKIE)?.value);
  const { people } = await listAccountsAndPeople(deps);
  const person = people.find((p) => p.id === chosen) ?? people[0];
  if (!person)
    throw new Refusal(
      'Nobody is known here yet, so nothing was changed. Add an account with your name first.',
      409,
    );
  return person.id;
}

/** @throws Refusal naming the field that is not as it must be */
export async function parseBody<S extends v.GenericSchema>(
  request: Request,
  schema: S,
): Promise<v.InferOutput<S>> {
  let body: unknown;
  try {
    body = await request.json();
  } catch {
    throw new Refusal('The request holds no JSON. Nothing was changed.');
  }
  return parse(schema, body);
}

export function parseQuery<S extends v.GenericSchema>(url: URL, schema: S): v.InferOutput<S> {
  return parse(schema, Object.fromEntries(url.searchParams));
}

export function parse<S extends v.GenericSchema>(schema: S, value: unknown): v.InferOutput<S> {
  const parsed = v.safeParse(schema, value);
  if (parsed.success) return parsed.output;
  const [issue] = parsed.issues;
  const field = v.getDotPath(issue);
  throw new Refusal(`${field ? `${field}: ` : ''}${issue.message}`);
}

/** @throws Refusal unless the text is a whole number */
export function parseId(text: string | undefined): number {
  const id = Number(text);
  if (!Number.isInteger(id) || id < 1 || id > 2_147_483_647)
    throw new Refusal('There is nothing of this number.', 404);
  return id;
}

function toResponse(error: unknown): Response {
  if (Refusal.is(error)) return Response.json({ error: error.message }, { status: error.status });
  console.error(error);
  const unreachable = error instanceof Error && 'code' in error && error.code === 'ECONNREFUSED';
  const what = unreachable
    ? 'The database can not be reached.'
    : 'Something failed here; the log of the web application says what.';
  return Response.json({ error: `${what} Nothing was changed.` }, { status: 500 });
}

/** CSV to be saved under a name. */
export function sheet(name: string, csv: string): Response {
  return new Response(csv, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${name}"`,
    },
  });
}
