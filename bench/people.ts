import { randomLcg } from 'd3';
import type { TermsPage } from '@/contracts/sift';
import type { TrayView } from '@/contracts/tray';
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
 * @param terms that are stopped, each once
 */
export async function letPeopleWork(crowd: Crowd, terms: Iterator<string>): Promise<Load> {
  const load: Load = { took: [], decisions: [], seconds: crowd.seconds, failed: [] };
  const end = performance.now() + crowd.seconds * 1000;
  const work = async (person: number) => {
    const draw = randomLcg(person / crowd.people);
    const ask = asking(crowd, load);
    let told = ((await ask('tray')) as TrayView).told; // as the browser, which keeps what it knows
    while (performance.now() < end) {
      const offset = Math.floor(draw() * 50) * 100;
      const page = (await ask(`sift/terms?offset=${offset}&most=100`)) as TermsPage | undefined;
      const lines = page?.lines.filter(({ words }) => words.length > 1) ?? [];
      for (let i = 0; i < 3 && lines.length > 0; i++) {
        const line = lines[Math.floor(draw() * lines.length)]!;
        await ask(`sift/choice?term=${line.id}&words=0`);
      }
      const { value: term, done } = terms.next() as IteratorResult<string, undefined>;
      if (done || lines.length === 0) continue;
      const line = lines[Math.floor(draw() * lines.length)]!;
      await ask('tray', { changes: [stopOf(term)] });
      await Promise.all([
        ask(`sift/terms?offset=${offset}&most=100`),
        ask('sift/words'),
        ask(`tray?known=${encodeURIComponent(told)}`).then((tray) => (told = (tray as TrayView).told)),
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

/** Queries that nothing stops and that never converted, the cheapest first: those that others look at stay. */
export async function listTerms(crowd: Crowd): Promise<Iterator<string>> {
  const ask = asking(crowd, { took: [], decisions: [], seconds: 0, failed: [] });
  const terms: string[] = [];
  for (let offset = 0; ; offset += 1_000) {
    const { lines } = (await ask(
      `sift/terms?returns=none&sort=cost&direction=asc&offset=${offset}&most=1000`,
    )) as TermsPage;
    terms.push(...lines.filter(({ words }) => words.length > 1).map(({ words }) => words.join(' ')));
    if (lines.length < 1_000) return terms.values();
  }
}

/** Takes everything out of the tray. */
export async function clearTray({ address, slug }: Crowd): Promise<void> {
  const tray = `${address}/api/${slug}/tray`;
  const { changes } = (await (await fetch(tray)).json()) as TrayView;
  const body = JSON.stringify({ changeIds: changes.map(({ id }) => id) });
  const headers = { origin: address, 'content-type': 'application/json' };
  if (changes.length > 0) await fetch(tray, { method: 'DELETE', headers, body });
}

/** Fills the tray, in one request. */
export async function fillTray(crowd: Crowd, changes: number, terms: Iterator<string>): Promise<void> {
  const load: Load = { took: [], decisions: [], seconds: 0, failed: [] };
  const stops = Array.from({ length: changes }, () => stopOf(terms.next().value as string));
  await asking(crowd, load)('tray', { changes: stops });
  if (load.failed.length > 0) throw new Error(load.failed[0]);
}

const stopOf = (text: string) => ({
  change: { kind: 'add negative', text, match: 'exact', place: { kind: 'account', id: null } },
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
