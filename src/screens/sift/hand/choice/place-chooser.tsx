import { placeKey } from '@/core';
import type { ChoiceAnswer, PlaceChoice } from '@/contracts/hand';
import { Key } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { Picker, type Pickable } from '@/ui/picker';
import { isSmallestSafe, toWanted } from './choice-state';
import type { Choice } from './use-choice';

/** Where a negative is put: one compact choice, the likely places first. */
export function PlaceChooser({ answer, choice }: { answer: ChoiceAnswer; choice: Choice }) {
  const { atPlace, places, proposedBecause } = choice;
  if (!atPlace) return null;
  const all = [...places.likely, ...places.ran, ...places.rest];
  const marked = all.filter(({ place }) => isSmallestSafe(answer, choice.match, place));
  const toItem = (choiceAt: PlaceChoice): Pickable => ({
    key: placeKey(choiceAt.place),
    says: [sayPlace(choiceAt), choiceAt.note].filter(Boolean).join(': '),
    shown: <Shown at={choiceAt} isMarked={marked.includes(choiceAt)} />,
  });
  return (
    <div className="mt-1.5 text-table leading-6">
      in{' '}
      <Picker
        label={`Place: ${sayPlace(atPlace)}`}
        trigger={sayPlace(atPlace)}
        groups={[
          { name: 'likely', items: places.likely.map(toItem) },
          { name: 'where it ran', items: places.ran.map(toItem) },
          { name: 'others', items: places.rest.map(toItem) },
        ]}
        chosen={placeKey(atPlace.place)}
        onPick={(key) => {
          const picked = all.find(({ place }) => placeKey(place) === key);
          if (picked) choice.setPlace(toWanted(picked.place));
        }}
        returnsTo="terms"
      />{' '}
      <Key>p</Key>{' '}
      {proposedBecause !== null && <span className="text-small text-soft">proposed: {proposedBecause}</span>}
      {proposedBecause === null && atPlace.note && (
        <span className="text-small text-soft">{atPlace.note}</span>
      )}
    </div>
  );
}

function sayPlace({ place, name }: PlaceChoice): string {
  switch (place.kind) {
    case 'adGroup':
      return `ad group ${name}`;
    case 'campaign':
      return `campaign ${name}`;
    case 'list':
      return `list ${name}`;
    case 'account':
      return 'the whole account';
  }
}

function Shown({ at, isMarked }: { at: PlaceChoice; isMarked: boolean }) {
  const hurts = at.touched.length > 0 || at.protectedTerms.count > 0;
  return (
    <>
      <span className="min-w-0 flex-1">
        {sayPlace(at)}
        {at.note && <span className="block text-small font-normal text-soft">{at.note}</span>}
        {isMarked && <span className="block text-small font-normal text-moss">smallest safe choice</span>}
      </span>
      {hurts && <span className="text-small text-rust">touches something</span>}
      <span className="text-small text-soft">{at.isThere ? 'there' : formatCount(at.weight.terms)}</span>
    </>
  );
}
