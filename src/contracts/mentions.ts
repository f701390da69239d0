import * as v from 'valibot';

/** What one person tells another within an account: by a note or a comment that names the person, or with the rest of a pass. */

export const MENTIONED = ['term', 'theme', 'list', 'change', 'pass'] as const;

const MentionSchema = v.strictObject({
  ...{ id: v.number(), by: v.string(), at: v.string(), isSeen: v.boolean() },
  ...{ kind: v.picklist(MENTIONED), about: v.string(), label: v.string(), body: v.string() },
});
export type Mention = v.InferOutput<typeof MentionSchema>;

export const MentionsSchema = v.strictObject({
  /** for who asks, the newest first */
  lines: v.array(MentionSchema),
  /** who has the rest of the pass that people are in; null where nobody was given it */
  pass: v.nullable(
    v.strictObject({ id: v.number(), to: v.string(), isMine: v.boolean(), by: v.string(), at: v.string() }),
  ),
});
export type Mentions = v.InferOutput<typeof MentionsSchema>;

export const MentionSeenSchema = v.object({ isSeen: v.boolean() });

const id = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(2_147_483_647));
export const GivePassSchema = v.object({ to: id });

type Named = { id: number; name: string };

/**
 * The people whom a text names after an @: by the whole name, or by the first where nobody else has it.
 * @example mentionedIn('@tobias, is this a film?', people) // [the one who is called Tobias Finch]
 */
export function mentionedIn<Person extends Named>(text: string, people: readonly Person[]): Person[] {
  const low = text.toLowerCase();
  const firstOf = (name: string) => name.toLowerCase().split(' ')[0]!;
  const isSaid = (name: string) => {
    for (let at = low.indexOf(`@${name}`); at !== -1; at = low.indexOf(`@${name}`, at + 1)) {
      const isWhole = !/[\p{L}\p{N}]/u.test(low.slice(at + name.length + 1, at + name.length + 2));
      const isBegun = !/[\p{L}\p{N}]/u.test(low.slice(Math.max(0, at - 1), at));
      if (isWhole && isBegun) return true;
    }
    return false;
  };
  return people.filter(({ name }) => {
    if (isSaid(name.toLowerCase())) return true;
    const first = firstOf(name);
    return people.filter((one) => firstOf(one.name) === first).length === 1 && isSaid(first);
  });
}
