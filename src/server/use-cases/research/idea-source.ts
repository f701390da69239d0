import type { SourceFaults } from '@/contracts/ideas';
import { OutsideTrouble } from '../../outside';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** The locations and languages for which the idea source has ideas. @throws Refusal when there is no such account, or the source does not answer */
export async function viewIdeaSource(deps: Deps, slug: string) {
  await requireAccount(deps, slug);
  return refusing(() => deps.ideas.about());
}

/**
 * What is to go wrong on the stand-in idea source.
 * @param faults in place of what is on; null only asks
 * @throws Refusal when there is no such account, or the source does not answer
 */
export async function setSourceFaults(
  deps: Deps,
  slug: string,
  faults: SourceFaults | null,
): Promise<SourceFaults> {
  await requireAccount(deps, slug);
  return refusing(() => deps.ideas.faults(faults));
}

async function refusing<Answer>(ask: () => Promise<Answer>): Promise<Answer> {
  try {
    return await ask();
  } catch (error) {
    if (error instanceof OutsideTrouble) throw new Refusal(error.message, 502);
    throw error;
  }
}
