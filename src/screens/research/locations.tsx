'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';

/** Names that are shown; the others are counted. */
const MOST_SHOWN = 6;

type Props = { sheetId: number; onType: (names: readonly string[]) => void };

/** Which places are served, and what the sheet names of others: to be typed as words, or answered where a name is an ordinary word as well. */
export function Locations({ sheetId, onType }: Props) {
  const { query, call } = useRoutes();
  const undoable = useUndoable();
  const { data, error } = useQuery(query('GET research/[sheet]/locations', { params: { sheet: sheetId } }));
  const [text, setText] = useState('');
  const [failure, setFailure] = useState<Error | null>(null);
  async function say(name: string, said: 'served' | 'no location' | null, words: string) {
    try {
      setFailure(null);
      const { text: key, was } = await call('POST research/locations', { body: { text: name, said } });
      setText('');
      await undoable(words, () => call('POST research/locations', { body: { text: key, said: was } }));
    } catch (caught) {
      setFailure(caught as Error);
    }
  }
  const sure = data?.named.filter(({ kind }) => kind === 'not served') ?? [];
  const perhaps = data?.named.filter(({ kind }) => kind === 'perhaps') ?? [];
  return (
    <section aria-label="Places">
      <h2 className="font-semibold">Places served</h2>
      <ErrorText error={error ?? failure} />
      <ul>
        {data?.served.map((name) => (
          <li key={name} className="flex min-h-7 items-baseline gap-2">
            <span className="min-w-0 flex-1 break-words capitalize">{name}</span>
            <button
              type="button"
              className="min-h-6 min-w-6 text-soft hover:text-rust"
              aria-label={`${name} is not served`}
              onClick={() => void say(name, null, `${name} is not served any more`)}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <form
        aria-label="Add a place"
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim() !== '') void say(text.trim(), 'served', `${text.trim()} is served`);
        }}
      >
        <input
          aria-label="Add a place that is served"
          placeholder="Add a country, region, city"
          maxLength={80}
          className="min-h-6 w-full border-b border-dashed border-soft bg-transparent placeholder:text-pine"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </form>
      {sure.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-1 text-small text-soft">
          not served, but named
          {sure.slice(0, MOST_SHOWN).map(({ name, ideas }) => (
            <button
              key={name}
              type="button"
              className="min-h-6 rounded bg-raised px-1 text-ink hover:bg-straw"
              aria-label={`Show ideas that name ${name}, ${formatCount(ideas)}`}
              onClick={() => onType([name])}
            >
              {name} {formatCount(ideas)}
            </button>
          ))}
          {sure.length > MOST_SHOWN && `and ${formatCount(sure.length - MOST_SHOWN)} more`}
          <Button onClick={() => onType(sure.map(({ name }) => name))}>
            Show {sure.length === 1 ? 'it' : `all ${formatCount(sure.length)}`}
          </Button>
        </p>
      )}
      {perhaps.length > 0 && (
        <div className="mt-1 text-small text-soft">
          Places, or ordinary words?
          <ul aria-label="Places, or ordinary words">
            {perhaps.slice(0, MOST_SHOWN).map(({ name, ideas }) => (
              <li key={name} className="flex flex-wrap items-baseline gap-x-2">
                <b className="text-ink">{name}</b> {formatCount(ideas)}
                <button
                  type="button"
                  className="min-h-6 text-pine underline"
                  aria-label={`${name} is a place: show its ideas`}
                  onClick={() => onType([name])}
                >
                  place
                </button>
                <button
                  type="button"
                  className="min-h-6 text-pine underline"
                  aria-label={`${name} is an ordinary word here`}
                  onClick={() => void say(name, 'no location', `${name} is an ordinary word here`)}
                >
                  word
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
