'use client';

import { useMoney } from '@/screens/frame/money';
import type { LedgerLine } from '@/contracts/ledger';
import { InHand } from '@/screens/frame/in-hand';
import { formatConversions, formatCount, formatDay, formatMoment } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { SavedInHand } from './saved-said';
import { UndoTogether } from './undo-together';
import { counted, shiftDay } from '@/core';

/**
 * What a sent change saved, what its terms cost before and since, and what still slips through.
 * @param isSavedKnown whether data have come since it was sent
 */
export function EntryInHand({ line, isSavedKnown }: { line: LedgerLine | undefined; isSavedKnown: boolean }) {
  if (!line) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Choose an entry to see what came of it.</p>
      </InHand>
    );
  }
  const { change } = line;
  return (
    <InHand title={line.what}>
      <div className="mt-1 text-table">
        <p className="text-soft">
          {line.who}, {formatMoment(line.at)}
          {change && `, acts from ${formatDay(shiftDay(change.sentDay, 1))}`}
        </p>
        {line.why && <p>{line.why}</p>}
        {change && isSavedKnown && <SavedInHand changeId={change.id} />}
        {change && <Outcome change={change} />}
        {change && (change.state === 'there' || change.state === 'said') && (
          <UndoTogether changeId={change.id} />
        )}
      </div>
    </InHand>
  );
}

function Outcome({ change: { before, since, state } }: { change: NonNullable<LedgerLine['change']> }) {
  const formatMoney = useMoney();
  if (state === 'said' || state === 'drafted')
    return (
      <p className="text-soft">
        {state === 'said'
          ? 'Said to be done. A structure file, brought in Intake, shows whether it is.'
          : 'It was taken back, and is not done.'}
      </p>
    );
  if (state !== 'there')
    return (
      <p className="text-rust">
        {state === 'refused'
          ? 'The platform refused it. It stands in the tray again.'
          : `It was looked for there, and is ${state}.`}
      </p>
    );
  if (!before || before.terms === 0) return null;
  return (
    <>
      <table className="mt-1.5 w-full border-y border-line text-right">
        <thead className="text-small text-soft">
          <tr>
            <th>
              <span className="sr-only">when</span>
            </th>
            <th className="font-normal">terms</th>
            <th className="font-normal">clicks</th>
            <th className="font-normal">cost</th>
            <th className="font-normal">conv.</th>
          </tr>
        </thead>
        <tbody>
          <FiguresRow
            name={`${counted(before.days, 'day')} before`}
            terms={before.terms}
            figures={before.figures}
          />
          {since && (
            <FiguresRow
              name={`${counted(since.days, 'day')} since`}
              terms={since.here.terms}
              figures={since.here}
            />
          )}
          {since && (
            <FiguresRow name="elsewhere since" terms={since.elsewhere.terms} figures={since.elsewhere} />
          )}
        </tbody>
      </table>
      {!since && <p className="mt-1 text-soft">No report reaches the day it was sent yet.</p>}
      {since && since.slips.length === 0 && (
        <p className="mt-1 text-moss">
          <StateIcon kind="stopped" /> Nothing slips through.
        </p>
      )}
      {since && since.slips.length > 0 && (
        <>
          <p className="mt-1.5 text-timber">
            <StateIcon kind="open" /> Still slips through, served elsewhere:
          </p>
          <ul>
            {since.slips.map((s) => (
              <li
                key={`${s.text} ${s.adGroup} ${s.campaign}`}
                className="flex gap-2 border-b border-line py-0.5"
              >
                <span className="min-w-0 flex-1 truncate" title={`${s.campaign} / ${s.adGroup}`}>
                  {s.text} <span className="text-soft">{s.adGroup}</span>
                </span>
                <span>{formatMoney(s.costMicros)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function FiguresRow({
  name,
  terms,
  figures,
}: {
  name: string;
  terms: number;
  figures: { clicks: number | null; costMicros: number | null; conversions: number | null };
}) {
  const formatMoney = useMoney();
  return (
    <tr>
      <th className="text-left font-normal">{name}</th>
      <td>{formatCount(terms)}</td>
      <td>{formatCount(figures.clicks ?? 0)}</td>
      <td>{formatMoney(figures.costMicros ?? 0)}</td>
      <td>{formatConversions(figures.conversions ?? 0)}</td>
    </tr>
  );
}
