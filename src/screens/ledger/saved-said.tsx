'use client';

import { useQuery } from '@tanstack/react-query';
import { counted, listed } from '@/core';
import type { SavedFigures, SavedOfChange, SavedSoFar } from '@/contracts/saved';
import { useMoney } from '@/screens/frame/money';
import { useRoutes } from '@/screens/frame/data/routes';
import { Explain } from '@/ui/explain';
import { balance, formatDay } from '@/ui/format';
import { WeekBars } from '@/ui/week-bars';

/** What everything that was sent saved, over the ledger's entries. */
export function SavedSoFarLine({ soFar }: { soFar: SavedSoFar['soFar'] }) {
  const money = useMoney();
  if (!soFar) return null;
  const { realMicros, predictedMicros, days, since, trays, changes } = soFar;
  return (
    <section
      aria-label="Saved so far"
      className="flex items-start gap-6 border-b border-line bg-sheet px-4 py-2 text-table"
      data-testid="saved-so-far"
    >
      <p className="min-w-0 flex-1">
        Saved so far about{' '}
        <b className={realMicros < 0 ? 'text-rust' : 'text-moss'}>{balance(realMicros, money)}</b>
        {predictedMicros !== null && ` of ${balance(predictedMicros, money)} predicted`}, in{' '}
        {counted(days, 'day')} from {formatDay(since)}: {counted(changes, 'change')}, {counted(trays, 'tray')}
        . <Why />
      </p>
      <div className="w-[210px] shrink-0">
        <Weeks saved={soFar} />
      </div>
    </section>
  );
}

/** What one change saved, and the difference from what was predicted, in words. */
export function SavedInHand({ changeId }: { changeId: number }) {
  const { query } = useRoutes();
  const money = useMoney();
  const { data } = useQuery(query('GET ledger/saved/[change]', { params: { change: changeId } }));
  if (!data) return null;
  const { realMicros, predictedMicros, days, tray } = data;
  return (
    <div className="mt-1.5 border-t border-line pt-1.5" data-testid="saved">
      <p>
        {realMicros >= 0 ? 'Saved' : 'Cost'} about <b>{money(Math.abs(realMicros))}</b> in{' '}
        {counted(days, 'day')}
        {predictedMicros === null
          ? '; nothing was predicted'
          : `; ${balance(predictedMicros, money)} predicted`}
        . <Why />
      </p>
      <ul className="text-soft">
        {differencesOf(data, money).map((said) => (
          <li key={said}>{said}</li>
        ))}
      </ul>
      <Weeks saved={data} />
      {tray.changes > 1 && (
        <p className="text-soft">
          Its tray of {formatDay(tray.sentDay)}, {counted(tray.changes, 'change')}: saved{' '}
          {balance(tray.realMicros, money)}
          {tray.predictedMicros !== null && ` of ${balance(tray.predictedMicros, money)} predicted`}.
        </p>
      )}
    </div>
  );
}

/** Of so small a share of what was stopped nobody needs to be told. */
const LITTLE = 0.02;

function differencesOf(saved: SavedOfChange, money: (micros: number) => string): string[] {
  const { trafficMicros, backMicros, backPredictedMicros, stillMicros, otherForms } = saved;
  const said: string[] = [];
  if (saved.likely && saved.realMicros >= saved.likely[0] && saved.realMicros <= saved.likely[1])
    said.push(
      `As it was to be expected: in nine cases of ten, ${balance(saved.likely[0], money)} to ${balance(saved.likely[1], money)}.`,
    );
  const stopped = saved.realMicros + backMicros + stillMicros;
  const isMuch = (micros: number) => Math.abs(micros) > LITTLE * Math.abs(stopped);
  if (trafficMicros !== null && isMuch(trafficMicros))
    said.push(
      trafficMicros > 0
        ? `More traffic: its terms would have cost ${money(trafficMicros)} more.`
        : `Less traffic: its terms would have cost ${money(-trafficMicros)} less.`,
    );
  const predicted = backPredictedMicros !== null && isMuch(backPredictedMicros);
  if (isMuch(backMicros) || predicted)
    said.push(
      `${
        backMicros > 0 && isMuch(backMicros)
          ? `Came back elsewhere: ${money(backMicros)}`
          : 'Elsewhere its terms cost no more than before'
      }${predicted ? `; ${money(backPredictedMicros)} predicted to come back` : ''}.`,
    );
  if (isMuch(stillMicros)) said.push(`Still served where it acts: ${money(stillMicros)}.`);
  if (otherForms.costMicros > 0)
    said.push(
      `Other forms of its words cost ${money(otherForms.costMicros)}, before ${money(otherForms.beforeMicros)}: ${listed(
        otherForms.first.map(({ text }) => text),
        otherForms.first.length,
      )}.`,
    );
  if (saved.isTakenBack) said.push(`It was taken back, and counts to ${formatDay(saved.to)}.`);
  if (saved.isGone)
    said.push('Some of what it stopped is open again: somebody changed it on the platform, not here.');
  return said;
}

function Weeks({ saved: { weeks } }: { saved: SavedFigures }) {
  const money = useMoney();
  return (
    <WeekBars
      weeks={weeks.map(({ predictedMicros, realMicros, ...week }) => ({
        ...week,
        ...{ said: predictedMicros, real: realMicros },
      }))}
      names={{ said: 'predicted', real: 'saved' }}
      money={money}
    />
  );
}

function Why() {
  return (
    <Explain about="what was saved" trigger="Why">
      Saved is what the stopped terms would have cost, less what they cost now: where they are stopped, and in
      all other places beyond what they cost there before. What they would have cost is told by the days
      before the change was sent, made smaller or larger as the traffic of the same campaigns went without
      them. Each term counts for the first change that stops it. Predicted is what was said when it was sent,
      for the same days.
    </Explain>
  );
}
