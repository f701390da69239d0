'use client';

import { useQuery } from '@tanstack/react-query';
import { toast } from 'sonner';
import { counted, type NegativeText } from '@/core';
import type { MatchChoice, PlaceChoice } from '@/contracts/hand';
import type { Outlook } from '@/contracts/outlook';
import type { TermLine } from '@/contracts/sift';
import { inDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { doing } from '@/screens/frame/data/undo';
import { sayFailure, tellHeldBack, useTrayActions } from '@/screens/tray/use-tray';

type InHand = {
  line: TermLine | undefined;
  negative: NegativeText;
  ofMatch: MatchChoice | undefined;
  atPlace: PlaceChoice | undefined;
  days: string | null;
  /** why the negative is no case for one; null when it is */
  isNoCase: string | null;
};

/** What the negative in hand is likely to bring, and the press that stops its queries where they would come back, too. */
export function useOutlook({ line, negative, ofMatch, atPlace, days, isNoCase }: InHand): {
  outlook: Outlook | undefined;
  stopThereToo(): Promise<void>;
} {
  const routes = useRoutes();
  const { draft } = useTrayActions();
  const { text, match } = negative;
  const { kind, id } = atPlace?.place ?? { kind: 'account' as const, id: null };
  const asked = { query: { text, match, kind, ...(id !== null && { id }), ...inDays(days) } };
  const isAsked =
    line?.kind === 'query' && isNoCase === null && ofMatch?.refusal === null && atPlace?.isThere === false;
  const { data: outlook } = useQuery({
    ...routes.query('GET sift/outlook', asked),
    enabled: isAsked,
    gcTime: 60_000,
  });
  return {
    outlook: isAsked ? outlook : undefined,
    async stopThereToo() {
      if (!line || !atPlace || !isAsked) return;
      try {
        // A key pressed early is not lost.
        const { back } = outlook ?? (await doing(routes.call('GET sift/outlook', asked)));
        const offered = back.filter(({ negatives }) => negatives.length > 0);
        if (offered.length > 0) await stopAt(line, atPlace, offered);
        else toast('Nowhere else to stop it: no other place is likely to take over enough of it.');
      } catch (failure) {
        sayFailure(failure);
      }
    },
  };

  async function stopAt(
    { id: about, raw }: TermLine,
    { place: here, name }: PlaceChoice,
    back: Outlook['back'],
  ) {
    const places = [here, ...back.map(({ place }) => place)];
    const changes = places.map((place) => ({
      change: { kind: 'add negative' as const, ...negative, place },
      ...{ why: `seen in “${raw}”`, from: raw },
    }));
    const said = `stop “${text}” (${match}) in ${name} and ${counted(back.length, 'other place')}`;
    tellHeldBack(await draft(changes, { said, about }));
  }
}
