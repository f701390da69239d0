import { listed, normalise } from '@/core';
import type { Idea } from '@/contracts/ideas';
import type { GatherOf } from '@/contracts/research';
import type { GivenIdea } from '../../../repositories/research/ideas';
import { OutsideTrouble } from '../../../outside';
import { Refusal, type Deps } from '../../deps';
import { bareIdea, distinctIdeas, type Gathered } from './gathered';
import { patiently } from './patiently';

type Needs = Pick<Deps, 'ideas'>;

/**
 * Ideas of the idea source, page after page. What came before it stopped answering is kept.
 * @throws Refusal when it gave nothing at all
 */
export async function gatherIdeas({ ideas: source }: Needs, asked: GatherOf<'ideas'>): Promise<Gathered> {
  const found: Idea[] = [];
  let missing: string | null = null;
  for (let after: string | null = null; ;) {
    let page: Awaited<ReturnType<Needs['ideas']['ideas']>>;
    try {
      const from = after;
      page = await patiently(() => source.ideas(asked, from));
    } catch (error) {
      if (!(error instanceof OutsideTrouble)) throw error;
      if (found.length === 0) throw new Refusal(`${error.message} Nothing was gathered.`, 502);
      missing = `${error.message} What comes after the first ${found.length} ideas is missing: gather them again.`;
      break;
    }
    found.push(...page.ideas);
    after = page.next;
    if (after === null || found.length >= asked.most) break;
  }
  return {
    title: `ideas of ${listed(asked.stems)}${asked.location === null ? '' : `, ${asked.location}`}`,
    ideas: distinctIdeas(found.slice(0, asked.most).map(toGiven)),
    missing,
  };
}

const toGiven = ({ text, ...figures }: Idea): GivenIdea => ({ key: normalise(text), ...figures });

const LETTERS = [...'abcdefghijklmnopqrstuvwxyz'];

/**
 * What people go on to type after a stem, and with each letter before and after it. Where some letters are not answered, the others are kept.
 * @throws Refusal when nothing was answered
 */
export async function gatherCompletions(
  { ideas: source }: Needs,
  { stem, withLetters }: GatherOf<'completions'>,
): Promise<Gathered> {
  const typed = [
    stem,
    ...(withLetters ? LETTERS.flatMap((letter) => [`${stem} ${letter}`, `${letter} ${stem}`]) : []),
  ];
  const found: string[] = [];
  const unanswered: string[] = [];
  let trouble: OutsideTrouble | undefined;
  for (const one of typed) {
    if (trouble) {
      unanswered.push(one); // it was asked often enough
      continue;
    }
    try {
      found.push(...(await patiently(() => source.completions(one))));
    } catch (error) {
      if (!(error instanceof OutsideTrouble)) throw error;
      trouble = error;
      unanswered.push(one);
    }
  }
  if (trouble && unanswered.length === typed.length)
    throw new Refusal(`${trouble.message} Nothing was gathered.`, 502);
  return {
    title: `completions of ${stem}${withLetters ? ', a – z' : ''}`,
    ideas: distinctIdeas(found.map((text) => bareIdea(normalise(text)))),
    missing: trouble
      ? `${trouble.message} Missing are those of ${unanswered.length} of ${typed.length} beginnings, from “${unanswered[0]!}” on: gather them again.`
      : null,
  };
}
