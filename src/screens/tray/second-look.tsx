'use client';

import { useState } from 'react';
import type { SecondLook as Look } from '@/contracts/second-look';
import type { TrayChange } from '@/contracts/tray';
import { counted, listed } from '@/core';
import { useMay } from '@/screens/frame/account-context';
import { Button } from '@/ui/button';
import { FIELD } from '@/ui/form';
import { formatMoment } from '@/ui/format';
import { useLookActions } from './use-second-look';

type Props = {
  look: Look;
  changes: readonly TrayChange[];
  /** somebody who need not ask for one asks for one */
  isWanted: boolean;
};

/** On the page before sending: why another person looks at the tray, who did, and what can be done about it. */
export function SecondLook({ look, changes, isWanted }: Props) {
  const { may } = useMay('prepare');
  const { asks, up } = look;
  if (!up && asks.length === 0 && !(isWanted && may)) return null;
  return (
    <section
      aria-label="Second look"
      className="shrink-0 border-b border-line bg-timber/10 px-5 py-2 text-table"
    >
      {asks.length > 0 && !look.isFree && <p>This tray needs a second look: {listed(asks)}.</p>}
      {up ? <Up {...{ look, up, changes }} /> : may && <PutUp whoMay={look.whoMay} />}
    </section>
  );
}

/** Puts the tray up, with a few words for who looks at it. */
export function PutUp({ whoMay }: { whoMay: readonly string[] }) {
  const { putUp } = useLookActions();
  const [note, setNote] = useState('');
  return (
    <form
      aria-label="Put the tray up for a second look"
      className="mt-1 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void putUp(note.trim());
      }}
    >
      <input
        aria-label="What to look at"
        placeholder="what to look at, if anything"
        maxLength={500}
        className={`${FIELD} min-w-0 flex-1`}
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
      <Button type="submit">Put it up</Button>
      <span className="basis-full text-soft">{sayWhoMay(whoMay)}</span>
    </form>
  );
}

const sayWhoMay = (whoMay: readonly string[]) =>
  whoMay.length > 0
    ? `${listed(whoMay)} may say yes.`
    : 'Nobody else may say yes: an owner gives somebody the role of one who may send.';

function Up({ look, up, changes }: Omit<Props, 'isWanted'> & { up: NonNullable<Look['up']> }) {
  const { takeDown, sayYes, takeYesBack } = useLookActions();
  const { may } = useMay('prepare');
  const all = changes.map(({ id }) => id);
  const { yes, unseen, note } = up;
  const isWhole = yes !== null && unseen.length === 0;
  return (
    <>
      <p>
        {up.isMine ? 'You' : up.by} put it up on {formatMoment(up.at)}
        {note ? (
          <>
            : <q>{note}</q>{' '}
          </>
        ) : (
          '. '
        )}
        {yes &&
          `${yes.isMine ? 'You' : yes.by} said yes on ${formatMoment(yes.at)}${
            isWhole ? '.' : `; ${counted(unseen.length, 'change')} came or changed since.`
          }`}
        {!isWhole && !look.mayYes && ` ${sayWhoMay(look.whoMay)}`}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-2">
        {!isWhole && look.mayYes && (
          <Button tone="main" onClick={() => void sayYes(all)}>
            Yes to {counted(all.length, 'change')}
          </Button>
        )}
        {yes?.isMine && <Button onClick={() => void takeYesBack(all)}>Take the yes back</Button>}
        {may && <Button onClick={() => void takeDown(note)}>Take it down</Button>}
      </div>
    </>
  );
}

/** In the tray: how far its second look is, in a line. */
export function SecondLookLine({ look }: { look: Look }) {
  const said = sayLook(look);
  if (!said) return null;
  return <p className="my-2 border-l-[3px] border-timber bg-timber/10 px-2.5 py-1.5 text-table">{said}</p>;
}

function sayLook({ up, asks, isFree, mayYes }: Look): string | null {
  if (!up) return asks.length > 0 ? 'It needs a second look before it is sent.' : null;
  if (up.yes && up.unseen.length === 0) return `${up.yes.isMine ? 'You' : up.yes.by} said yes to it.`;
  const since = up.yes ? ' Changes came since the yes.' : '';
  const by = up.isMine ? 'You put it up for a second look.' : `${up.by} put it up for a second look.`;
  const next = mayYes ? ' It waits for you.' : isFree ? '' : ' It waits for a yes.';
  return `${by}${since}${next}`;
}
