import { listed } from '@/core';
import type { IdeaLines } from '@/core';
import { MOST_IDEAS, MOST_TOLD, type Gather, type GatheredAnswer } from '@/contracts/research';
import { appendLedger } from '../../../repositories/ledger';
import { mergeIdeas } from '../../../repositories/research/ideas';
import { insertSource, noteGiven } from '../../../repositories/research/sources';
import { countIdeas, findSheet, updateSheet } from '../../../repositories/research/sheets';
import { raiseDecisionVersion, type Account } from '../../../repositories/account/accounts';
import { OutsideTrouble } from '../../../outside';
import { Refusal, type Deps } from '../../deps';
import { requireAccount } from '../../open-workbench';
import type { Gathered } from './gathered';
import { gatherCombinations, gatherFile, gatherKeywords, gatherLines } from './from-here';
import { gatherPack } from './from-pack';
import { gatherCompletions, gatherIdeas } from './from-source';
import { patiently } from './patiently';

/**
 * Gathers ideas into a sheet. What a source gave before it failed is kept, and it is said what is missing. Nothing is locked while a source
 * outside is asked.
 * @throws Refusal when nothing was gathered, or the sheet would hold too much; nothing was changed then
 */
export async function gather(
  deps: Deps,
  slug: string,
  personId: number,
  sheetId: number,
  asked: Gather,
): Promise<GatheredAnswer> {
  const account = await requireAccount(deps, slug);
  const gathered = await ask(deps, account, asked);
  return deps.db.transaction(async (trx) => {
    const sheet = await findSheet(trx, account.id, sheetId, { lock: true });
    if (!sheet) throw new Refusal('There is no such sheet any more. Nothing was gathered.', 404);
    const { ideas, lines, title, missing } = gathered;
    const there = await countIdeas(trx, account.id, sheetId);
    if (there + ideas.length > MOST_IDEAS)
      throw new Refusal(
        `A sheet holds at most ${MOST_IDEAS.toLocaleString('en')} ideas; this one has ${there.toLocaleString('en')}. Nothing was gathered.`,
      );
    const from = { kind: asked.kind, title, asked: withoutText(asked), missing, personId };
    const sourceId = await insertSource(trx, account.id, sheetId, from);
    const added = await mergeIdeas(trx, account.id, sheetId, sourceId, ideas);
    await noteGiven(trx, account.id, sourceId, { given: ideas.length, added });
    await updateSheet(trx, account.id, sheetId, stemsOf(asked, sheet.stems), { haveIdeasCome: true });
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'research' },
      what: `Gather ${ideas.length.toLocaleString('en')} ideas into ${sheet.name}: ${title}`,
    });
    await raiseDecisionVersion(trx, account.id); // so that others look again
    return { sourceId, title, missing, given: ideas.length, added, lines: lines ? toldOf(lines) : null };
  });
}

async function ask(deps: Deps, account: Account, asked: Gather): Promise<Gathered> {
  switch (asked.kind) {
    case 'ideas':
      return gatherIdeas(deps, asked);
    case 'completions':
      return gatherCompletions(deps, asked);
    case 'combinations':
      return gatherCombinations(asked);
    case 'keywords':
      return gatherKeywords(deps, account);
    case 'file':
      return gatherFile(deps, account, asked.file);
    case 'pack':
      return gatherPack(deps, account, asked.pack);
    case 'paste':
      return gatherLines(asked.text);
    case 'brief':
      return gatherLines(
        await candidatesOf(deps, asked),
        `brief about ${listed(asked.brief.topics)}${asked.round === 0 ? '' : `, ${asked.round + 1}`}`,
      );
  }
}

async function candidatesOf(
  { ideas }: Deps,
  { brief, round }: Extract<Gather, { kind: 'brief' }>,
): Promise<string> {
  try {
    return await patiently(() => ideas.candidates(brief, round));
  } catch (error) {
    if (error instanceof OutsideTrouble) throw new Refusal(`${error.message} Nothing was gathered.`, 502);
    throw error;
  }
}

/** How lines were cleaned: the first of them, and how many there are. */
const toldOf = ({ cleaned, refused, twice }: IdeaLines): GatheredAnswer['lines'] => ({
  ...{ cleaned: cleaned.length, refused: refused.length, twice: twice.length },
  firstCleaned: cleaned.slice(0, MOST_TOLD),
  firstRefused: refused.slice(0, MOST_TOLD),
});

/** What was asked for; a paste is not kept a second time. */
const withoutText = (asked: Gather): unknown => (asked.kind === 'paste' ? { kind: 'paste' } : asked);

/** The words that were asked for are stems of the sheet. */
function stemsOf(asked: Gather, before: readonly string[]): { stems?: string[] } {
  const more = asked.kind === 'ideas' ? asked.stems : asked.kind === 'completions' ? [asked.stem] : [];
  return more.length === 0 ? {} : { stems: [...new Set([...before, ...more])] };
}
