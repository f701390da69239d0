'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { group } from 'd3';
import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import type { Change } from '@/core';
import type { MadeForRequest } from '@/contracts/knots';
import type { DraftOutcome, SentState, TrayView } from '@/contracts/tray';
import { useDecide } from '@/screens/frame/data/decide';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { doing } from '@/screens/frame/data/undo';
import { call, useRoutes } from '@/screens/frame/data/routes';
import { useAccount } from '@/screens/frame/account-context';
import { inDays, useDays } from '@/screens/frame/data/days';
import { PARTS } from '@/contracts/routes';
import type { Naming } from '@/screens/frame/data/decide';
import { counted } from '@/core';
import { formatDay } from '@/ui/format';

/** The tray as the server sees it; asked for again while something is on its way. */
export function useTrayView() {
  const { query: queryBy } = useRoutes();
  const { slug } = useAccount().summary;
  const client = useQueryClient();
  const [days] = useDays();
  const refresh = useRefresh();
  const asked = { query: inDays(days) };
  const { queryKey, ...options } = queryBy('GET tray', asked);
  const query = useQuery({
    ...options,
    queryKey,
    // A large tray is not sent anew for each change that is put into it.
    queryFn: async ({ signal }): Promise<TrayView> => {
      const last = client.getQueryData(queryKey);
      const view = await call(slug, 'GET tray', { query: { ...asked.query, known: last?.told } }, signal);
      const kept = last?.changes.slice(0, view.kept) ?? [];
      return { ...view, kept: 0, changes: [...kept, ...view.changes] };
    },
    refetchInterval: ({ state }) => askAgainAfter(state.data),
  });
  const sending = isSending(query.data);
  const was = useRef(false);
  useEffect(() => {
    if (was.current && !sending) void refresh(PARTS); // it has been read back: everything may have changed
    was.current = sending;
  }, [sending, refresh]);
  return query;
}

const isOnItsWay = ({ state, sendAt }: SentState) => state === 'sending' && sendAt === null;
const isSending = (view: TrayView | undefined) => view?.sent.some(isOnItsWay) ?? false;

/** Milliseconds until the tray is asked for again: soon while the platform answers, later while it is waited for. */
function askAgainAfter(view: TrayView | undefined): number | false {
  const underway = view?.sent.filter(isOnItsWay) ?? [];
  if (underway.some(({ trouble }) => trouble === null)) return 700;
  return underway.length > 0 ? 3_000 : false;
}

/** What became of a change; waits: there is no connection, and it is sent when it is back. */
export type DraftResult = DraftOutcome | { outcome: 'waits' };

type Draft = {
  change: Change;
  why?: string;
  forcedBecause?: string;
  /** the search term from which a negative is made */
  from?: string;
  /** the knot that it is to untangle */
  knot?: MadeForRequest;
};

/** Changes that are not put in of which each is told why; the others are counted. */
const MOST_TOLD = 3;

/** What can be done with the tray, each with its undo. */
export function useTrayActions() {
  const { call } = useRoutes();
  const decide = useDecide();
  const refresh = useRefresh();
  const undoable = useUndoable();

  const post = (changes: readonly Draft[], naming: Naming = { said: 'changes to the tray' }) =>
    decide('POST tray', naming, { body: { changes: [...changes] } });
  const takeOut = (changeIds: readonly number[]) =>
    doing(call('DELETE tray', { body: { changeIds: [...changeIds] } }));

  /** Says what became of changes that were to be put in the tray, with the undo. What is held back is for the caller to show. */
  async function settle(outcomes: readonly DraftOutcome[]): Promise<void> {
    const drafted = outcomes.filter((o) => o.outcome === 'drafted');
    const cancelled = outcomes.filter((o) => o.outcome === 'cancelled');
    const declined = outcomes.filter((o) => o.outcome === 'refused' || o.outcome === 'already there');
    for (const { said } of declined.slice(0, MOST_TOLD)) toast(said);
    if (declined.length > MOST_TOLD)
      toast(`${counted(declined.length - MOST_TOLD, 'more change')} not put in, or there already.`);
    if (drafted.length + cancelled.length > 0) {
      const [only] = [...drafted, ...cancelled];
      const said =
        drafted.length + cancelled.length === 1
          ? `${only!.said}${heedOf(only!)}`
          : `${counted(drafted.length, 'change')} put in the tray`;
      await undoable(said, async () => {
        if (drafted.length > 0) await takeOut(drafted.map((o) => o.changeId));
        if (cancelled.length > 0) await post(cancelled.map((o) => ({ change: o.removed })));
      });
    }
  }

  return {
    settle,
    /** Puts changes in the tray and says what became of them. What is held back is for the caller to show. */
    async draft(changes: readonly Draft[], name?: Naming): Promise<DraftResult[]> {
      try {
        const sent = await post(changes, name);
        if (sent.state === 'waits') return changes.map(() => ({ outcome: 'waits' }));
        const { outcomes } = sent.answer;
        await settle(outcomes);
        return outcomes;
      } catch (error) {
        sayFailure(error);
        return [];
      }
    },

    async remove(changeIds: readonly number[]): Promise<void> {
      try {
        const { removed } = await takeOut(changeIds);
        if (removed.length < changeIds.length)
          toast('Some of it was no longer in the tray: another person took it out or sent it.');
        if (removed.length === 0) return void (await refresh(PARTS));
        await undoable(`${counted(removed.length, 'change')} taken out of the tray`, () =>
          post(removed.map((change) => ({ change }))),
        );
      } catch (error) {
        sayFailure(error);
      }
    },

    /** @param sending some changes only, or at a time */
    async send(sending: { only?: number[]; at?: string } = {}): Promise<boolean> {
      try {
        await call('POST tray/send', { body: sending });
        await refresh();
        return true;
      } catch (error) {
        sayFailure(error);
        return false;
      }
    },

    /** Says until when stops are to act. */
    async setEnd(changeIds: readonly number[], endsOn: string | null): Promise<void> {
      const put = (ids: readonly number[], day: string | null) =>
        call('PUT tray/ends', { body: { changeIds: [...ids], endsOn: day } });
      try {
        const { was } = await doing(put(changeIds, endsOn));
        const said =
          endsOn === null ? 'No end any more' : `Taken back by itself on ${formatDay(endsOn, true)}`;
        await undoable(said, async () => {
          for (const [day, ids] of group(was, (one) => one.endsOn))
            await put(
              ids.map((one) => one.changeId),
              day,
            );
        });
      } catch (error) {
        sayFailure(error);
      }
    },

    /** Says something of a change, for all who look at the tray. @returns whether it was said */
    async comment(changeId: number, text: string): Promise<boolean> {
      try {
        const { id } = await doing(call('POST tray/comments', { body: { changeId, text } }));
        await undoable('Said of the change', () =>
          call('DELETE tray/comments/[comment]', { params: { comment: id } }),
        );
        return true;
      } catch (error) {
        sayFailure(error);
        return false;
      }
    },

    /** A tray that was handed over has been carried out, a person says. */
    async sayDone(setId: number): Promise<void> {
      try {
        await call('POST tray/sent/[set]/done', { params: { set: setId } });
        await undoable('Said to be done', () =>
          call('DELETE tray/sent/[set]/done', { params: { set: setId } }),
        );
      } catch (error) {
        sayFailure(error);
        await refresh(PARTS);
      }
    },

    /** Stores what a result sheet says of a tray that was handed over. */
    async storeResults(
      setId: number,
      results: readonly { id: number; failed: string | null }[],
    ): Promise<void> {
      try {
        const body = { results: results.map(({ id, failed }) => ({ id, failed })) };
        const { done, failed, was } = await doing(
          call('POST tray/sent/[set]/results', { params: { set: setId }, body }),
        );
        const said = `${counted(done, 'change')} carried out${failed > 0 ? `, ${failed} back in the tray` : ''}`;
        await undoable(said, () =>
          call('DELETE tray/sent/[set]/results', { params: { set: setId }, body: { was } }),
        );
      } catch (error) {
        sayFailure(error);
        await refresh(PARTS);
      }
    },

    /** Puts what was not delivered back in the tray: some changes, or all. */
    async takeBack(setId: number, changeIds?: readonly number[]): Promise<void> {
      try {
        const body = { changeIds: changeIds && [...changeIds] };
        const { said } = await call('POST tray/sent/[set]/back', { params: { set: setId }, body });
        toast(said);
      } catch (error) {
        sayFailure(error);
      }
      await refresh(PARTS);
    },

    /** Stops a sending after the batch that is on its way. */
    async stop(setId: number): Promise<void> {
      try {
        const { said } = await call('POST tray/sent/[set]/stop', { params: { set: setId } });
        toast(said);
      } catch (error) {
        sayFailure(error);
      }
      await refresh(PARTS);
    },

    async sendAgain(setId: number): Promise<void> {
      try {
        await call('POST tray/sent/[set]/again', { params: { set: setId } });
        await refresh();
      } catch (error) {
        sayFailure(error);
      }
    },
  };
}

const heedOf = (outcome: DraftOutcome) =>
  outcome.outcome === 'drafted' && outcome.heed ? `. ${outcome.heed}` : '';

/** Says what was held back of several changes, where there is no room for a reason beside each. */
export function tellHeldBack(outcomes: readonly DraftResult[]): void {
  const held = outcomes.filter((outcome) => outcome.outcome === 'held back');
  if (held.length > 0) toast.error(`${counted(held.length, 'change')} not put in the tray. ${held[0]!.said}`);
}

export function sayFailure(error: unknown): void {
  toast.error(error instanceof Error ? error.message : 'It did not work. Nothing was changed.');
}
