'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import { counted, type Change } from '@/core';
import type { DuplicateLine, SameKeyword } from '@/contracts/duplicates';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { useTrayActions } from '@/screens/tray/use-tray';
import { useLeaving } from '../leaving/use-leaving';
import { pileOf, useUntangleUrl, type UntangleUrl } from '../untangle-url';

/** What becomes of the keywords that do not stay. */
export type End = 'pause' | 'remove';

/** What is asked of the server, as the URL says it. */
export function useDuplicatesQuery() {
  const [url] = useUntangleUrl();
  const [days] = useDays();
  return queryOf(url, inDays(days));
}

const queryOf = ({ alike, near, campaigns, besides, sure, pile }: UntangleUrl, days: { days?: string }) => ({
  ...{ alike, near, pile: pileOf({ pile }), ...days },
  ...(campaigns !== '' && { campaigns }),
  ...(besides.length > 0 && { besides: besides.join(',') }),
  ...(sure >= 50 && sure <= 100 && { sure: String(sure) }),
});

/** Groups of keywords that compete, as they are asked for. */
export function useDuplicates() {
  const { query } = useRoutes();
  return useQuery({
    ...query('GET untangle/duplicates', { query: useDuplicatesQuery() }),
    placeholderData: keepPreviousData,
  });
}

/** The group in hand: who stays, what it would take over, and what is done with the others. */
export function useGroupInHand(line: DuplicateLine | undefined, marked: readonly DuplicateLine[]) {
  const { query } = useRoutes();
  const { draft } = useTrayActions();
  const [days] = useDays();
  const [single] = useSingleKeys();
  const [chosen, setChosen] = useState<{ of: string; at: number }>({ of: '', at: 0 });
  const ids = line?.keywords.map(({ id }) => id).join(',') ?? '';
  const over = useQuery({
    ...query('GET untangle/duplicates/hand-over', { query: { keywords: ids, ...inDays(days) } }),
    enabled: line !== undefined,
  });
  const at = line && chosen.of === line.key && chosen.at < line.keywords.length ? chosen.at : 0;
  const choose = (next: number) => line && setChosen({ of: line.key, at: next });

  /** Ends all others of some groups; of the one in hand the chosen keyword stays, of the rest the suggested one. */
  async function end(how: End, lines: readonly DuplicateLine[]) {
    const changes = lines.flatMap((one) =>
      endOthers(one, one.key === line?.key ? at : 0, how).map((put) => ({
        ...put,
        knot: { kind: 'duplicate' as const, key: one.key, ...inDays(days) },
      })),
    );
    if (changes.length === 0) return;
    await draft(changes, {
      said: `${how} ${counted(changes.length, 'keyword')} that ${changes.length === 1 ? 'stands' : 'stand'} twice`,
    });
  }

  const leaving = useLeaving('duplicate', line && { ...line, says: `“${line.keywords[0]!.text}”` });
  const inHand = marked.length > 0 ? marked : line ? [line] : [];
  return {
    ...{ line, at, choose, end, inHand, leaving },
    /** what each would take over; not known yet: undefined */
    handsOver: line && over.data?.keywords[0]?.id === line.keywords[0]!.id ? over.data.keywords : undefined,
    error: over.error,
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void end('pause', inHand);
        return true;
      }
      if (!isPlain(event, single)) return false;
      if (event.key === 'r') {
        void end('remove', inHand);
        return true;
      }
      if (event.key === 'l' && line) {
        leaving.turn();
        return true;
      }
      if (!/^[1-9]$/.test(event.key) || !line || Number(event.key) > line.keywords.length) return false;
      choose(Number(event.key) - 1);
      return true;
    },
  };
}
export type GroupInHand = ReturnType<typeof useGroupInHand>;

function endOthers({ keywords }: DuplicateLine, stays: number, how: End): { change: Change; why: string }[] {
  const kept = keywords[stays]!;
  const why = `untangled: “${kept.text}” (${kept.match}) stays in ${kept.campaign} · ${kept.adGroup}`;
  const canEnd = ({ status, bidMicros }: SameKeyword) =>
    status === 'live' || (how === 'remove' && status !== 'removed' && bidMicros !== null);
  return keywords
    .filter((one, i) => i !== stays && canEnd(one))
    .map((one) => ({ change: endOf(one, how), why }));
}

/** Without a known bid a keyword could not be put back as it was, so it is paused. */
function endOf({ id, campaign, adGroup, text, match, bidMicros }: SameKeyword, how: End): Change {
  if (how === 'pause' || bidMicros === null) return { kind: 'pause keyword', keywordId: id };
  return { kind: 'remove keyword', campaign, adGroup, text, match, bidMicros };
}
