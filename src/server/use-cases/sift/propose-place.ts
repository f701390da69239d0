import { stemOf, words, type Place } from '@/core';
import type { ChoiceAnswer } from '@/contracts/hand';
import type { Open } from '../open-workbench';
import { listsAlike, stemsOfKeywords } from './likely-list';

/**
 * Where a negative would go, by where kin of its words stand already: a list that hangs where the term ran, else its ad
 * group, its campaign or the account. What is in the tray counts too, so that it follows where a word was put before.
 * @param ran where the term cost most
 * @returns null where no kin stands anywhere
 */
export function proposePlace(
  open: Open,
  text: string,
  ran: { id: string; campaignId: string },
): ChoiceAnswer['proposed'] {
  const { gate } = open.draft;
  const list = listsAlike(open, text).find(({ place }) => gate.isWithin(place, ran));
  if (list) return { place: list.place, because: list.note };
  const places: Place[] = [
    { kind: 'adGroup', id: ran.id },
    { kind: 'campaign', id: ran.campaignId },
    { kind: 'account', id: null },
  ];
  const stems = new Set(
    words(text)
      .map(stemOf)
      .filter((stem) => !stemsOfKeywords(open.snapshot).has(stem)),
  );
  for (const place of places) {
    const kin = gate
      .entriesAt(place)
      .find((entry) => words(entry.text).some((word) => stems.has(stemOf(word))));
    if (kin) return { place, because: `“${kin.text}” stands there` };
  }
  return null;
}
