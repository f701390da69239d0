'use client';

import { useQuery } from '@tanstack/react-query';
import { counted, type NegativeText } from '@/core';
import type { MatchChoice, PlaceChoice } from '@/contracts/hand';
import type { Outlook } from '@/contracts/outlook';
import type { TermLine } from '@/contracts/sift';
import { inDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { useTrayActions } from '@/screens/tray/use-tray';

type InHand = {
  line: TermLine | undefined;
  negative: NegativeText;
  ofMatch: MatchChoice | undefined;
  atPlace: PlaceChoice | undefined;
  days: string | null;
};

/** What the negative in hand is likely to bring, and the press that stops its queries where they would come back, too. */
export function useOutlook({ line, negative, ofMatch, atPlace, days }: InHand): {
  outlook: Outlook | undefined;
  stopThereToo(): Promise<void>;
} {
  const routes = useRoutes();
  const { draft } = useTrayActions();
  const { text, match } = negative;
  const { kind, id } = atPlace?.place ?? { kind: 'account' as const, id: null };
  const asked = { query: { text, match, kind, ...(id !== null && { id }), ...inDays(days) } };
  const isAsked = line?.kind === 'query' && ofMatch?.refusal === null && atPlace?.isThere === false;
  const { data: outlook } = useQuery({
    ...routes.query('GET sift/outlook', asked),
    enabled: isAsked,
    gcTime: 60_000,
  });
  return {
    outlook: isAsked ? outlook : undefined,
    async stopThereToo() {
      if (!line || !atPlace || !outlook || outlook.back.length === 0) return;
      const places = [atPlace.place, ...outlook.back.map(({ place }) => place)];
      const changes = places.map((place) => ({
        change: { kind: 'add negative' as const, ...negative, place },
        ...{ why: `seen in “${line.raw}”`, from: line.raw },
      }));
      const said = `stop “${text}” (${match}) in ${atPlace.name} and ${counted(outlook.back.length, 'other place')}`;
      await draft(changes, { said, about: line.id });
    },
  };
}
