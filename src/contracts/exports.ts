import * as v from 'valibot';

/** A file that the browser made of what it shows. */
export const ExportSchema = v.object({
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'A file has a name.'), v.maxLength(300)),
});

/** Files that were saved from an account, the newest first. */
export const ExportsAnswerSchema = v.strictObject({
  lines: v.array(v.strictObject({ id: v.string(), name: v.string(), by: v.string(), at: v.string() })),
});
export type ExportsAnswer = v.InferOutput<typeof ExportsAnswerSchema>;
