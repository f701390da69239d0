'use client';

import type { Verdict } from '@/contracts/hand';
import type { TermLine } from '@/contracts/sift';
import { useDecide } from '@/screens/frame/data/decide';
import { PARTS } from '@/contracts/routes';
import { sayFailure } from '@/screens/tray/use-tray';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { sayVerdict } from '@/contracts/say-verdict';

type Wanted = { is: 'open' } | { is: 'kept'; note?: string } | { is: 'aside'; moreClicks: number };

/** Gives a verdict on a term, at once and with its undo; `seen` is the one that was shown when it was decided. */
export function useVerdict() {
  const decide = useDecide();
  const refresh = useRefresh();
  const undoable = useUndoable();
  const send = (raw: string, verdict: Wanted, said: string, more: { seen?: Verdict['is']; about?: number }) =>
    decide('POST verdict', { said, about: more.about }, { body: { raw, verdict, seen: more.seen } });
  return async (line: Pick<TermLine, 'id' | 'raw'>, verdict: Wanted, seen?: Verdict['is']): Promise<void> => {
    const { raw, id } = line;
    try {
      const sent = await send(raw, verdict, sayVerdict(`“${raw}”`, verdict), { seen, about: id });
      if (sent.state === 'waits') return;
      const { was, said } = sent.answer;
      await undoable(said, () => send(raw, backTo(was), `undo: ${said}`, { seen: verdict.is }));
    } catch (error) {
      sayFailure(error);
      await refresh(PARTS); // somebody else may have decided meanwhile: show it as it stands
    }
  };
}

function backTo(was: Verdict): Wanted {
  switch (was.is) {
    case 'open':
      return { is: 'open' };
    case 'kept':
      return { is: 'kept', note: was.note ?? undefined };
    case 'aside':
      return { is: 'aside', moreClicks: was.moreClicks };
  }
}
