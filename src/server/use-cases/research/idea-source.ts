import type { SourceFaults } from '@/contracts/ideas';
import { OutsideTrouble } from '../../outside';
import { Refusal, type Deps } from '../deps';

type Needs = Pick<Deps, 'ideas'>;

/** The locations and languages for which the idea source has ideas. @throws Refusal when it does not answer */
export const viewIdeaSource = ({ ideas }: Needs) => refusing(() => ideas.about());

/**
 * What is to go wrong on the stand-in idea source.
 * @param faults in place of what is on; null only asks
 * @throws Refusal when it does not answer
 */
export const setSourceFaults = ({ ideas }: Needs, faults: SourceFaults | null) =>
  refusing(() => ideas.faults(faults));

async function refusing<Answer>(ask: () => Promise<Answer>): Promise<Answer> {
  try {
    return await ask();
  } catch (error) {
    if (error instanceof OutsideTrouble) throw new Refusal(error.message, 502);
    throw error;
  }
}
