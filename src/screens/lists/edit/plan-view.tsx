import { useMoney } from '@/screens/frame/money';
import type { EditPlan } from '@/contracts/list-edits';
import { Hurts } from '@/screens/frame/hurts';
import { conversionsOf } from '@/ui/format';
import { counted, listed } from '@/core';

/** What an edit would come to, in sentences: what it changes, where, what it would stop, what it leaves out. */
export function PlanView({ plan }: { plan: EditPlan }) {
  const formatMoney = useMoney();
  const { stops, reopens, proof } = plan;
  return (
    <div className="flex flex-col gap-1 text-table" aria-live="polite" data-testid="plan">
      <p>
        <b>{plan.said}</b>: {counted(plan.changes, 'change')}.
      </p>
      <Reaches reaches={plan.reaches} />
      {proof && (
        <p className={proof.same ? 'text-moss' : 'text-rust'} data-testid="proof">
          {proof.same ? 'Proved: no gate answers otherwise. ' : 'It would change what a gate answers. '}
          Compared in {counted(proof.adGroups, 'ad group')}: {proof.said}
        </p>
      )}
      {stops.terms > 0 && (
        <p>
          Stops {counted(stops.terms, 'term')}: {counted(stops.clicks ?? 0, 'click')},{' '}
          {formatMoney(stops.costMicros)} spent, {conversionsOf(stops)}.
        </p>
      )}
      {reopens.terms > 0 && (
        <p>
          Opens {counted(reopens.terms, 'term')} again: {counted(reopens.clicks ?? 0, 'click')},{' '}
          {formatMoney(reopens.costMicros)} spent, {conversionsOf(reopens)}.
        </p>
      )}
      {stops.terms + reopens.terms === 0 && !proof && (
        <p className="text-soft">No term of these days would be stopped or opened by it.</p>
      )}
      <Hurts protectedTerms={plan.protectedTerms} touched={plan.touched} />
      {plan.over.map((said) => (
        <p key={said} className="border-l-[3px] border-rust bg-rust/10 px-2.5 py-1.5">
          {said} It can not be sent like this.
        </p>
      ))}
      <LeftOut plan={plan} />
    </div>
  );
}

export function Reaches({ reaches: { everywhere, campaigns } }: { reaches: EditPlan['reaches'] }) {
  if (campaigns.length === 0)
    return <p className="text-soft">It hangs nowhere, so nothing is stopped until it is hung.</p>;
  return (
    <details>
      <summary className="cursor-pointer">
        Reaches {everywhere ? 'the whole account, ' : ''}
        {counted(campaigns.length, 'campaign')}
        {campaigns.length <= 3 && `: ${listed(campaigns)}`}
      </summary>
      <ul className="max-h-32 overflow-y-auto pl-4 text-soft" tabIndex={0}>
        {campaigns.map((name) => (
          <li key={name}>{name}</li>
        ))}
      </ul>
    </details>
  );
}

function LeftOut({ plan: { refused, twice, already, folded } }: { plan: EditPlan }) {
  return (
    <>
      {already > 0 && (
        <p className="text-soft">{counted(already, 'entry stands', 'entries stand')} there already.</p>
      )}
      {twice > 0 && (
        <p className="text-soft">{counted(twice, 'line says', 'lines say')} what another line says.</p>
      )}
      {folded.count > 0 && (
        <details>
          <summary className="cursor-pointer text-soft">
            {counted(folded.count, 'address lies', 'addresses lie')} below another and{' '}
            {folded.count === 1 ? 'is' : 'are'} left out
          </summary>
          <ul className="max-h-28 overflow-y-auto pl-4 text-soft" tabIndex={0}>
            {folded.first.map(({ address, under }) => (
              <li key={address}>
                {address} (under {under})
              </li>
            ))}
          </ul>
        </details>
      )}
      {refused.count > 0 && (
        <details open>
          <summary className="cursor-pointer text-rust">{counted(refused.count, 'line')} refused</summary>
          <ul className="max-h-28 overflow-y-auto pl-4" tabIndex={0} data-testid="refused">
            {refused.first.map(({ line, raw, reason }) => (
              <li key={line}>
                <span className="text-soft">line {line}:</span> {raw.slice(0, 80)}{' '}
                <span className="text-rust">{reason}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
