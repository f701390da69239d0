import { effectOfDraft, type Change } from '@/core';
import { runningPlaces } from '@/server/compute/outlook/running-places';
import { textsIn } from '@/server/compute/shared-columns';
import { kindAt } from '@/server/compute/window-columns';
import type { Deps } from '@/server/use-cases/deps';
import { openWorkbench, requireAccount } from '@/server/use-cases/open-workbench';
import { outlookOf } from '@/server/use-cases/outlook/foresee-tray';
import { interleaved, median, ms, timedOnce, type Line } from './measure';

/** Times of finding what a draft stops that foreseeing it may take. */
const MOST = 5;
const CHANGES = 50;

/** What a draft of fifty words is likely to bring, against finding what it stops. */
export async function benchOutlook(deps: Deps, slug: string, days: number, size: string): Promise<Line[]> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const { snapshot } = open;
  const learning = await timedOnce(() => runningPlaces(snapshot));
  const { terms } = snapshot;
  const texts = textsIn(terms.keys, terms.keyStarts, (t) => kindAt(terms, t) === 'query');
  const campaigns = [...snapshot.campaign.keys()];
  const changes = Array.from({ length: CHANGES }, (_, i): Change => {
    const words = texts[Math.floor((i * texts.length) / CHANGES)]!.split(' ');
    const place = { kind: 'campaign', id: campaigns[i % campaigns.length]! } as const;
    return { kind: 'add negative', text: words.slice(0, 1).join(' '), match: 'phrase', place };
  });
  const draftOf = () => effectOfDraft(open.awaited, changes);
  const drafted = changes.map((change, id) => ({ ...{ id, change }, state: 'drafted' })) as never;
  const rounds = Array.from({ length: 6 }, () => ({ ...open, drafted, draft: draftOf() }));
  const times = await interleaved({ ours: () => outlookOf(rounds.pop()!), limit: draftOf }, 5);
  const ratio = median(times.ours.map((own, i) => own / times.limit[i]!));
  return [
    {
      ...{ task: `what ${CHANGES} drafted words are likely to bring`, size, ours: ms(median(times.ours)) },
      against: `limit: ${MOST} × finding what they stop (${ms(median(times.limit))}); learning where queries run, once: ${ms(learning)}`,
      ...{ ratio: (ratio / MOST).toFixed(2), verdict: ratio <= MOST ? 'within' : 'OVER' },
    },
  ];
}
