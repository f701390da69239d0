'use client';

import { useState } from 'react';
import type { SheetView } from '@/contracts/research';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';

import { Locations } from './locations';
import { SheetName } from './sheet-name';

type Props = {
  view: SheetView | undefined;
  source: number | null;
  /** @param isReady it gave candidates, not ideas */
  onSource: (source: number | null, isReady: boolean) => void;
  onGather: () => void;
  /** words and runs that are to be typed in the filter */
  onType: (texts: readonly string[]) => void;
};

/** What the sheet is about, and where its ideas came from. */
export function Origins({ view, source, onSource, onGather, onType }: Props) {
  const turn = useTurnSource(view?.sheet.id);
  return (
    <aside
      aria-label="Stems and sources"
      className="flex w-[204px] shrink-0 flex-col gap-4 overflow-y-auto bg-paper px-4 py-2.5 text-table max-[900px]:w-[150px]"
      tabIndex={0}
    >
      {view && <Stems view={view} />}
      {view && (
        <section aria-label="Sources">
          <h2 className="font-semibold">Sources</h2>
          <ul>
            {view.sources.map(({ id, kind, title, given, missing, isOut }) => (
              <li key={id} className="border-b border-line">
                <span className="flex items-baseline">
                  <button
                    type="button"
                    aria-pressed={source === id}
                    className={`flex min-h-7 w-full items-baseline gap-2 text-left hover:text-pine ${source === id ? 'bg-straw font-semibold' : ''}`}
                    onClick={() => onSource(source === id ? null : id, kind === 'brief' || kind === 'pack')}
                  >
                    <span className={`min-w-0 flex-1 break-words ${isOut ? 'line-through' : ''}`}>
                      {title}
                    </span>
                    <span className="text-soft">{formatCount(given)}</span>
                  </button>
                  <button
                    type="button"
                    className="min-h-6 min-w-6 text-soft hover:text-rust"
                    aria-label={isOut ? `Put ${title} in again` : `Take ${title} out of the sheet`}
                    onClick={() => void turn(id, title, !isOut)}
                  >
                    {isOut ? '+' : '×'}
                  </button>
                </span>
                {missing !== null && <p className="pb-1 text-small text-rust">{missing}</p>}
              </li>
            ))}
          </ul>
          <Button className="mt-2" onClick={onGather}>
            {view.sources.length === 0 ? 'Gather ideas' : 'Gather more'}
          </Button>
        </section>
      )}
      {view && <Struck view={view} />}
      {view && <Locations sheetId={view.sheet.id} onType={onType} />}
      {view && <SheetName key={view.sheet.name} sheet={view.sheet} />}
    </aside>
  );
}

function Stems({ view: { sheet, proposed } }: { view: SheetView }) {
  const change = useChangeSheet(sheet);
  return (
    <section aria-label="Stems">
      <h2 className="font-semibold">Stems</h2>
      <ul>
        {sheet.stems.map((stem) => (
          <li key={stem} className="flex min-h-7 items-baseline gap-2">
            <span className="min-w-0 flex-1 break-words">{stem}</span>
            <TakeOut
              what={`the stem ${stem}`}
              onPress={() => change('stems', (stems) => stems.filter((one) => one !== stem))}
            />
          </li>
        ))}
      </ul>
      <AddText label="Add a stem" onAdd={(text) => change('stems', (stems) => [...stems, text])} />
      {proposed.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-1 text-small text-soft">
          many hold
          {proposed.slice(0, 6).map(({ text, ideas }) => (
            <button
              key={text}
              type="button"
              className="min-h-6 rounded bg-raised px-1 text-ink hover:bg-straw"
              aria-label={`Make ${text} a stem; ${formatCount(ideas)} ideas hold it`}
              onClick={() => change('stems', (stems) => [...stems, text])}
            >
              {text} {formatCount(ideas)}
            </button>
          ))}
        </p>
      )}
    </section>
  );
}

function Struck({ view: { sheet } }: { view: SheetView }) {
  const change = useChangeSheet(sheet);
  return (
    <section aria-label="Struck out of all ideas">
      <h2 className="font-semibold">Struck out of all ideas</h2>
      <ul>
        {sheet.struck.map((text) => (
          <li key={text} className="flex min-h-7 items-baseline gap-2">
            <span className="min-w-0 flex-1 break-words">{text}</span>
            <TakeOut
              what={`${text}: leave it in the ideas`}
              onPress={() => change('struck', (struck) => struck.filter((one) => one !== text))}
            />
          </li>
        ))}
      </ul>
      <AddText label="Strike a text out" onAdd={(text) => change('struck', (struck) => [...struck, text])} />
    </section>
  );
}

function TakeOut({ what, onPress }: { what: string; onPress: () => void }) {
  return (
    <button
      type="button"
      className="min-h-6 min-w-6 text-soft hover:text-rust"
      aria-label={`Take out ${what}`}
      onClick={onPress}
    >
      ×
    </button>
  );
}

function AddText({ label, onAdd }: { label: string; onAdd: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <form
      aria-label={label}
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') onAdd(text.trim());
        setText('');
      }}
    >
      <input
        aria-label={label}
        placeholder={label}
        maxLength={80}
        className="min-h-6 w-full border-b border-dashed border-soft bg-transparent placeholder:text-pine"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
    </form>
  );
}

/** Takes a source out of the sheet, or puts it back, with its undo. */
function useTurnSource(sheetId: number | undefined) {
  const { call } = useRoutes();
  const undoable = useUndoable();
  return async (source: number, title: string, isOut: boolean) => {
    const put = (out: boolean) =>
      call('PATCH research/[sheet]/sources', { params: { sheet: sheetId! }, body: { source, isOut: out } });
    await put(isOut);
    await undoable(`${title} ${isOut ? 'taken out' : 'put in again'}`, () => put(!isOut));
  };
}

/** Changes the stems, or what is struck, with its undo. */
function useChangeSheet({ id, stems, struck }: SheetView['sheet']) {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const lists = { stems, struck };
  return async (which: 'stems' | 'struck', make: (before: string[]) => string[]) => {
    const put = (texts: string[]) =>
      call('PATCH research/[sheet]', { params: { sheet: id }, body: { [which]: texts } });
    const before = lists[which];
    await put([...new Set(make(before))]);
    await undoable(which === 'stems' ? 'The stems are others' : 'What is struck out is another', () =>
      put(before),
    );
  };
}
