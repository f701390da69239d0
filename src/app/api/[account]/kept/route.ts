import * as v from 'valibot';
import { parseBody, writes } from '@/app/api/_handle/handle';
import { keepTerm, letTermGo } from '@/server/use-cases/keep-term';

const KeepSchema = v.object({
  raw: v.pipe(v.string(), v.maxLength(500)),
  note: v.optional(v.nullable(v.pipe(v.string(), v.maxLength(500))), null),
});

export const POST = writes(async ({ deps, slug, personId, request }) => {
  await keepTerm(deps, slug, personId, await parseBody(request, KeepSchema));
});

export const DELETE = writes(async ({ deps, slug, personId, request }) => {
  await letTermGo(deps, slug, personId, (await parseBody(request, KeepSchema)).raw);
});
