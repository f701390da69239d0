import { randomLcg } from 'd3';
import type { TermsPage } from '@/contracts/sift';
import { median, quantile } from './measure';

/** How a load went: every answer that came, in ms, and what failed. */
export type Load = { took: number[]; decisions: number[]; seconds: number; failed: string[] };

export type Crowd = {
  /** of the application, without the account */
  address: string;
  slug: string;
  people: number;
  seconds: number;
};

/**
 * Lets people work at the same time, each without a pause: they read the terms, choose words, stop a term now and then, and
 * see what their browser asks for again after that.
 * @param firstTerm of those that are stopped, so that two loads stop different ones
 */
export async function letPeopleWork(crowd: Crowd, firstTerm: number): Promise<Load> {
  const load: Load = { took: [], decisions: [], seconds: crowd.seconds, failed: [] };
  const end = performance.now() + crowd.seconds * 1000;
  let next = firstTerm;
  const work = async (person: number) => {
    const draw = randomLcg(person / crowd.people);
    const ask = asking(crowd, load);
    while (performance.now() < end) {
      const offset = Math.floor(draw() * 50) * 100;
      const page = (await ask(`sift/terms?offset=${offset}&most=100`)) as TermsPage | undefined;
      const lines = page?.lines.filter(({ words }) => words.length > 1) ?? [];
      for (let i = 0; i < 3 && lines.length > 0; i++) {
        const line = lines[Math.floor(draw() * lines.length)]!;
        await ask(`sift/choice?term=${line.id}&words=0`);
      }
      if (lines.length === 0) continue;
      const line = lines[Math.floor(draw() * lines.length)]!;
      await ask('tray', stopOf(`${line.words.join(' ')} ${(next += 1)}`));
      await Promise.all([
        ask(`sift/terms?offset=${offset}&most=100`),
        ask('sift/words'),
        ask('tray'),
        ask('open'),
        ask(`sift/choice?term=${line.id}&words=0`),
      ]);
    }
  };
  await Promise.all(Array.from({ length: crowd.people }, (_, person) => work(person)));
  return load;
}

/** The same number of people ask one bare route, without a pause. */
export async function letPeopleAsk(crowd: Crowd, route: string): Promise<Load> {
  const load: Load = { took: [], decisions: [], seconds: crowd.seconds, failed: [] };
  const end = performance.now() + crowd.seconds * 1000;
  const ask = asking(crowd, load);
  const work = async () => {
    while (performance.now() < end) await ask(route);
  };
  await Promise.all(Array.from({ length: crowd.people }, work));
  return load;
}

/** Fills the tray, in one request. */
export async function fillTray(crowd: Crowd, changes: number, firstTerm: number): Promise<void> {
  const load: Load = { took: [], decisions: [], seconds: 0, failed: [] };
  await asking(crowd, load)('tray', {
    changes: Array.from({ length: changes }, (_, i) => stopOf(`made up term ${firstTerm + i}`).changes[0]!),
  });
  if (load.failed.length > 0) throw new Error(load.failed[0]);
}

const stopOf = (text: string) => ({
  changes: [{ change: { kind: 'add negative', text, match: 'exact', place: { kind: 'account', id: null } } }],
});

function asking({ address, slug }: Crowd, load: Load) {
  return async (route: string, body?: object): Promise<unknown> => {
    const start = performance.now();
    const answer = await fetch(`${address}/api/${slug}/${route}`, {
      ...(body && { method: 'POST', body: JSON.stringify(body) }),
      headers: { origin: address, 'content-type': 'application/json' },
    });
    const text = await answer.text();
    const took = performance.now() - start;
    (body ? load.decisions : load.took).push(took);
    if (answer.ok) return JSON.parse(text);
    load.failed.push(`${route}: ${answer.status} ${text}`);
    return undefined;
  };
}

/** Requests a second, the middle and the 95th percentile, ms. */
export function summaryOf({ took, decisions, seconds }: Load) {
  const all = [...took, ...decisions];
  return {
    rate: all.length / seconds,
    middle: median(all),
    high: quantile(all, 0.95),
    decided: median(decisions),
  };
}
