import { combineWords, counted, countCombinations, normalise, readIdeaLines, type IdeaLines } from '@/core';
import { MOST_COMBINATIONS, type GatherOf } from '@/contracts/research';
import { loadGivenByFile } from '../../../repositories/intake/ideas';
import { findReportFile } from '../../../repositories/intake/reports';
import type { Account } from '../../../repositories/account/accounts';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench } from '../../open-workbench';
import { bareIdea, distinctIdeas, type Gathered } from './gathered';

/** Lines as people paste them; the way in which they were cleaned is told with them. */
export function gatherLines(pasted: string, title = 'pasted lines'): Gathered & { lines: IdeaLines } {
  const lines = readIdeaLines(pasted);
  return { title, ideas: lines.ideas.map(({ text }) => bareIdea(text)), missing: null, lines };
}

/** @throws Refusal when they are too many; how many there are is said before any is made */
export function gatherCombinations({ columns, anyOrder }: GatherOf<'combinations'>): Gathered {
  const count = countCombinations(columns, { anyOrder });
  if (count === 0) throw new Refusal('The columns hold no word. Nothing was gathered.');
  if (count > MOST_COMBINATIONS)
    throw new Refusal(
      `These are ${count.toLocaleString('en')} combinations; at most ${MOST_COMBINATIONS.toLocaleString('en')} are made at once. Take words out, or make them in parts. Nothing was gathered.`,
    );
  return {
    title: `combinations of ${counted(columns.length, 'column')}`,
    ideas: [...combineWords(columns, { anyOrder })].map(bareIdea),
    missing: null,
  };
}

/** The keywords of the account that are live. */
export async function gatherKeywords(deps: Deps, account: Account): Promise<Gathered> {
  const { snapshot } = await openWorkbench(deps, account);
  const texts = snapshot.liveKeywords.map(({ text }) => bareIdea(normalise(text)));
  return { title: 'live keywords', ideas: distinctIdeas(texts), missing: null };
}

/** The ideas of a file that Intake has loaded. @throws Refusal when there are none */
export async function gatherFile({ db }: Deps, { id }: Account, fileId: number): Promise<Gathered> {
  const file = await findReportFile(db, id, fileId);
  if (file?.kind !== 'keyword ideas' || file.state !== 'loaded')
    throw new Refusal('This file holds no keyword ideas that are loaded. Nothing was gathered.', 404);
  return { title: `file ${file.name}`, ideas: await loadGivenByFile(db, id, fileId), missing: null };
}
