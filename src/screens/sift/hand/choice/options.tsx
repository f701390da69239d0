import { useMoney } from '@/screens/frame/money';
import { counted } from '@/core';
import type { ChoiceAnswer, PlaceChoice } from '@/contracts/hand';
import { Hurts } from '@/screens/frame/hurts';
import { OutlookSaid } from '@/screens/frame/outlook-said';
import { Key } from '@/ui/button';
import { conversionsOf, formatConversions, formatCount } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { Radio } from '@/ui/radio';
import { isSmallestSafe, placeInHand } from './choice-state';
import { PlaceChooser } from './place-chooser';
import type { Choice } from './use-choice';

/** What stopping the chosen words would do, in each match type and at each place, so that choosing is reading. */
export function Options({ answer, choice }: { answer: ChoiceAnswer; choice: Choice }) {
  return (
    <>
      <Matches answer={answer} choice={choice} />
      <PlaceChooser answer={answer} choice={choice} />
      {choice.atPlace && (
        <Consequence
          at={choice.atPlace}
          isMarked={isSmallestSafe(answer, choice.match, choice.atPlace.place)}
        />
      )}
      {choice.outlook && (
        <OutlookSaid outlook={choice.outlook}>
          <button
            type="button"
            className="min-h-6 font-semibold whitespace-nowrap text-pine underline-offset-2 hover:underline"
            onClick={() => void choice.stopThereToo()}
          >
            Stop it here and there <Key>b</Key>
          </button>
        </OutlookSaid>
      )}
    </>
  );
}

function Matches({ answer, choice }: { answer: ChoiceAnswer; choice: Choice }) {
  const formatMoney = useMoney();
  const words = choice.chosen.positions.length > 0;
  return (
    <table className="mt-2 w-full border-y border-line text-table">
      <caption className="sr-only">What each match type would stop at {choice.atPlace?.name}</caption>
      <thead className="text-small text-soft">
        <tr>
          <th className="py-0.5 text-left font-normal">
            Stop {words ? <span className="bg-straw px-1 font-semibold text-ink">{choice.text}</span> : 'it'}{' '}
            as <Key>m</Key>
          </th>
          <th className="text-right font-normal">terms</th>
          <th className="text-right font-normal">clicks</th>
          <th className="text-right font-normal">cost</th>
          <th className="text-right font-normal">conv.</th>
        </tr>
      </thead>
      <tbody>
        {answer.choices.map((c) => {
          const at = placeInHand(
            c,
            choice.atPlace
              ? { kind: choice.atPlace.place.kind, listId: choice.atPlace.place.id }
              : { kind: 'campaign', listId: null },
          );
          const current = c.match === choice.match;
          return (
            <tr key={c.match} className={current ? 'font-semibold' : ''}>
              <td className="flex items-center">
                <label className="-ml-1.5 flex items-center gap-0.5">
                  <Radio
                    name="match"
                    checked={current}
                    disabled={c.refusal !== null}
                    onChange={() => choice.setMatch(c.match)}
                  />
                  {c.match}
                </label>
                {c.match === 'exact' && words && (
                  <button
                    type="button"
                    className="ml-1 min-h-6 font-normal whitespace-nowrap text-soft hover:text-ink"
                    aria-label="Stop the whole term"
                    onClick={() => void choice.stopWhole()}
                  >
                    whole <Key>w</Key>
                  </button>
                )}
              </td>
              {c.refusal !== null || !at ? (
                <td colSpan={4} className="text-right text-small text-soft">
                  {c.refusal}
                </td>
              ) : (
                <>
                  <td className="text-right">{formatCount(at.weight.terms)}</td>
                  <td className="text-right">{formatCount(at.weight.clicks ?? 0)}</td>
                  <td className="text-right">{formatMoney(at.weight.costMicros ?? 0)}</td>
                  <td
                    className={`text-right ${(at.weight.conversions ?? 0) > 0 ? 'font-semibold text-rust' : ''}`}
                  >
                    {formatConversions(at.weight.conversions ?? 0)}
                  </td>
                </>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Consequence({ at, isMarked }: { at: PlaceChoice; isMarked: boolean }) {
  const formatMoney = useMoney();
  const { weight, touched, protectedTerms } = at;
  return (
    <div className="mt-1 text-table" aria-live="polite" data-testid="consequence">
      <p className="sr-only">
        <b>{at.place.kind === 'account' ? 'The whole account' : at.name}</b>
        {at.note && <span className="text-soft"> {at.note}</span>}
        {at.isThere ? (
          '. It stands there already.'
        ) : (
          <>
            . Stops {counted(weight.terms, 'term')} of these days: {counted(weight.clicks ?? 0, 'click')},{' '}
            {formatMoney(weight.costMicros ?? 0)} spent,{' '}
            {(weight.conversions ?? 0) > 0 ? (
              <span className="font-semibold text-rust">{conversionsOf(weight)} lost</span>
            ) : (
              conversionsOf(weight)
            )}
            .
          </>
        )}
      </p>
      {at.heed && <p className="text-timber">{at.heed}</p>}
      {at.coveredBy && !at.isThere && (
        <p className="text-timber">
          <StateIcon kind="stopped" /> “{at.coveredBy.text}” ({at.coveredBy.match}) in{' '}
          {at.coveredBy.placeName} covers it already: it would stop nothing more.
        </p>
      )}
      <Hurts protectedTerms={protectedTerms} touched={touched} />
      {at.isThere && <p className="text-timber">It stands there already.</p>}
      {at.isSafe && (
        <p className="text-moss">
          {isMarked ? 'Smallest safe choice: ' : 'Safe: '}
          touches no live keyword, no protected term.
        </p>
      )}
    </div>
  );
}
