'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import { counted, seatAlone, type Change } from '@/core';
import type { OverlapLine, SeatingLine, Server } from '@/contracts/overlaps';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { useTrayActions } from '@/screens/tray/use-tray';
import { useLeaving } from '../leaving/use-leaving';
import { pileOf, useUntangleUrl } from '../untangle-url';

/** Search terms that several ad groups serve, as they are asked for. */
export function useOverlaps() {
  const { query } = useRoutes();
  const [{ between, clicks, pile }] = useUntangleUrl();
  const [days] = useDays();
  return useQuery({
    ...query('GET untangle/overlaps', {
      query: { pile: pileOf({ pile }), between, clicks: String(Math.max(0, clicks)), ...inDays(days) },
    }),
    placeholderData: keepPreviousData,
  });
}

/** The term in hand: which ad group keeps it, and by which negatives the others lose it. */
export function useOverlap(line: OverlapLine | undefined, marked: readonly OverlapLine[]) {
  const { query } = useRoutes();
  const { draft } = useTrayActions();
  const [days] = useDays();
  const [single] = useSingleKeys();
  const [chosen, setChosen] = useState<{ of: string; at: number }>({ of: '', at: 0 });
  const [match, setMatch] = useState<SeatingLine['match']>('exact');
  const [where, setWhere] = useState<SeatingLine['where']>('ad groups');
  const at = line && chosen.of === line.term && chosen.at < line.servers.length ? chosen.at : 0;
  const keeps = line?.servers[at];
  const seatings = useQuery({
    ...query('GET untangle/overlaps/seatings', {
      query: { term: line?.term ?? '-', keeps: keeps?.adGroupId ?? '0', ...inDays(days) },
    }),
    enabled: line !== undefined,
  });
  const view =
    line && seatings.data?.term === line.term && seatings.data.keeps === keeps?.adGroupId
      ? seatings.data
      : undefined;
  // In one campaign there are only ad groups to choose from.
  const ways = view?.ways ?? [];
  const places = [...new Set(ways.map((way) => way.where))];
  const place = places.includes(where) ? where : 'ad groups';
  const way = ways.find((one) => one.match === match && one.where === place);

  const together = marked.filter((one) => !shutsOut(one, one.term === line?.term ? at : 0));

  const knotOf = ({ term }: OverlapLine) => ({ kind: 'overlap' as const, key: term, ...inDays(days) });

  async function put() {
    if (marked.length > 0) {
      const changes = together.flatMap((one) =>
        exactElsewhere(one, one.term === line?.term ? at : 0).map((put) => ({ ...put, knot: knotOf(one) })),
      );
      await draft(changes, { said: `leave ${counted(together.length, 'term')} to one ad group each` });
    } else if (line && keeps && way && way.hits.count === 0) {
      const reason = reasonOf(line.term, keeps);
      await draft(
        way.changes.map(({ change }) => ({ change, ...reason, knot: knotOf(line) })),
        { said: `leave “${line.term}” to ${keeps.adGroup}` },
      );
    }
  }

  const turn = {
    match: () => setMatch(match === 'exact' ? 'phrase' : 'exact'),
    place: () => setWhere(place === 'ad groups' ? 'campaigns' : 'ad groups'),
  };
  const leaving = useLeaving('overlap', line && { key: line.term, left: line.left, says: `“${line.term}”` });
  return {
    ...{
      leaving,
      line,
      at,
      keeps,
      view,
      way,
      match,
      place,
      places,
      marked: marked.length,
      together: together.length,
    },
    ...{ put, setMatch, setWhere, error: seatings.error },
    choose: (next: number) => line && setChosen({ of: line.term, at: next }),
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void put();
        return true;
      }
      if (!isPlain(event, single) || !line) return false;
      if (event.key === 'm') turn.match();
      else if (event.key === 'p') turn.place();
      else if (event.key === 'l') leaving.turn();
      else if (/^[1-9]$/.test(event.key) && Number(event.key) <= line.servers.length)
        setChosen({ of: line.term, at: Number(event.key) - 1 });
      else return false;
      return true;
    },
  };
}
export type OverlapInHand = ReturnType<typeof useOverlap>;

/** A term that is protected stays open where it is kept: that is the reason to put the negatives in all the same. */
function reasonOf(term: string, { campaign, adGroup }: Server) {
  const why = `untangled: “${term}” is left to ${campaign} · ${adGroup}`;
  return { why, forcedBecause: `${why}, where nothing stops it` };
}

/** Whether one of the others has the term as its exact keyword, which a negative would shut out (rules 4, 11). */
const shutsOut = ({ servers }: OverlapLine, at: number) =>
  servers.some(
    ({ adGroupId, saidAs }, i) =>
      i !== at && saidAs.includes('exact') && !servers[at]!.apartFrom.includes(adGroupId),
  );

/** Exact negatives touch nothing but the term, so many terms can go at once. */
function exactElsewhere({ term, servers }: OverlapLine, at: number) {
  const keeps = servers[at]!;
  const others = servers.filter(({ adGroupId }) => !keeps.apartFrom.includes(adGroupId));
  const way = seatAlone(term, keeps, others).find(
    (one) => one.match === 'exact' && one.where === 'ad groups',
  );
  const reason = reasonOf(term, keeps);
  return (way?.changes ?? []).map((change: Change) => ({ change, ...reason }));
}
