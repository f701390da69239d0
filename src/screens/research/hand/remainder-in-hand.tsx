'use client';

import { useQuery } from '@tanstack/react-query';
import { counted, listed } from '@/core';
import type { RemainderLine } from '@/contracts/research';
import { useRoutes } from '@/screens/frame/data/routes';
import { InHand } from '@/screens/frame/in-hand';
import { Button, Key } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { HeldBack } from './held-back';
import { PlaceOfNegatives } from './place-of-negatives';
import type { RemainderChoice } from './use-remainder';
import { WeighedNegatives } from './weighed-negatives';

type Props = {
  remainder: RemainderChoice;
  /** what is said of what stands for itself */
  says?: string | undefined;
};

/** The remainder in hand, or those that are marked: the ideas that hold it, and what stopping it would do. */
export function RemainderInHand({ remainder, says }: Props) {
  const { lines, holding, weighed, isStale } = remainder;
  const [only] = lines;
  if (!only) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  return (
    <InHand
      title={lines.length === 1 ? <Words remainder={remainder} /> : `${formatCount(lines.length)} marked`}
      actions={<Actions remainder={remainder} />}
    >
      <div aria-busy={isStale} className={isStale ? 'opacity-60' : ''}>
        <p className="mt-1 text-table text-soft">{says ?? sayHeld(lines, holding?.count ?? only.ideas)}</p>
        {weighed && <WeighedNegatives remainder={remainder} weighed={weighed} />}
      </div>
      <PlaceOfNegatives place={remainder.place} onChange={remainder.setPlace} />
      <HeldBack remainder={remainder} />
      {holding && <Ideas holding={holding} sheetId={remainder.sheetId} />}
    </InHand>
  );
}

/** The words of the remainder; one of them can be picked in its stead. */
function Words({ remainder: { line, words, word, pick } }: { remainder: RemainderChoice }) {
  if (words.length < 2) return line?.text ?? '';
  return (
    <span className="inline-flex flex-wrap gap-1" role="group" aria-label="The word at fault">
      {words.map((text, position) => (
        <button
          key={position}
          type="button"
          aria-pressed={word === null || word === position}
          aria-label={`${text}, ${position + 1}`}
          className={`min-h-6 rounded px-1 ${word === null || word === position ? 'bg-straw' : 'text-soft'}`}
          onClick={() => pick(position)}
        >
          {text} <span className="text-tiny text-soft">{position + 1}</span>
        </button>
      ))}
    </span>
  );
}

type IdeasProps = { holding: NonNullable<RemainderChoice['holding']>; sheetId: number };

function Ideas({ holding: { count, first }, sheetId }: IdeasProps) {
  const { query } = useRoutes();
  const { data } = useQuery(query('GET research/[sheet]', { params: { sheet: sheetId } }));
  const titles = new Map(data?.sources.map(({ id, title }) => [id, title]));
  const from = (sources: readonly number[]) => `from ${listed(sources.map((id) => titles.get(id) ?? ''))}`;
  return (
    <ul className="mt-2 border-t border-line text-table" aria-label="Ideas that hold it">
      {first.map(({ key, words, sources }) => (
        <li key={key} className="border-b border-line py-0.5 text-soft">
          {words.map(({ text, isChosen }, i) => (
            <span key={i} className={isChosen ? 'rounded bg-straw px-0.5 text-ink' : ''}>
              {text}{' '}
            </span>
          ))}
          {titles.size > 1 && (
            <span className="block truncate text-small" title={from(sources)}>
              {from(sources)}
            </span>
          )}
        </li>
      ))}
      {count > first.length && (
        <li className="text-small text-soft">and {formatCount(count - first.length)} more</li>
      )}
    </ul>
  );
}

function sayHeld(lines: readonly RemainderLine[], ideas: number): string {
  const volume = lines.reduce((sum, one) => sum + (one.volume ?? 0), 0);
  const what =
    lines.length === 1 ? `Holds ${counted(ideas, 'idea')}` : lines.map(({ text }) => text).join(', ');
  return `${what}${volume > 0 ? `, ${formatCount(volume)} searches a month` : ''}.`;
}

function Actions({ remainder }: { remainder: RemainderChoice }) {
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button tone="main" onClick={() => void remainder.put()}>
        Put in the tray <Key>↵</Key>
      </Button>
      {remainder.isDecided ? (
        <Button onClick={() => void remainder.decide(null)}>Open again</Button>
      ) : (
        <>
          <Button onClick={() => void remainder.decide('kept')}>
            Keep <Key>o</Key>
          </Button>
          <Button onClick={() => void remainder.decide('dropped')}>
            Drop <Key>x</Key>
          </Button>
        </>
      )}
      <Button onClick={() => void remainder.copy()}>
        Copy lines <Key>y</Key>
      </Button>
    </div>
  );
}
