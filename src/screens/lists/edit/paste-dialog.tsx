'use client';

import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import * as v from 'valibot';
import type { ListLine, ReadListFile } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { MATCH_TYPES } from '@/core';
import { useAccount } from '@/screens/frame/account-context';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { InlineField, SelectField, useValidForm } from '@/ui/form';
import { namedOptions, optionsOf } from '@/ui/select';
import { EditInHand } from './edit-in-hand';
import { HOLDS, NEW_LIST } from './new-list';
import { usePlanAhead } from './use-edits';
import { useRoutes } from '@/screens/frame/data/routes';

type Props = { lists: readonly ListLine[]; into: string | null; onClose: () => void };

const NEW = '';
/** Characters of a paste that is put in as a whole. */
const MUCH = 4_000;

/** Lines may be unfinished while they are typed: their plan says what is wrong with them. */
const PasteSchema = v.object({
  ...{ text: v.string(), target: v.string(), name: v.string() },
  ...{ holds: v.picklist(['words', 'placements']), match: v.picklist(MATCH_TYPES) },
});

/** Lines into a list, pasted or from a file; what they come to is shown while they are there. */
export function PasteDialog({ lists, into, onClose }: Props) {
  const { summary } = useAccount();
  const { call } = useRoutes();
  const { register, control, watch, setValue } = useValidForm(PasteSchema, {
    ...{ ...NEW_LIST, text: '', target: into ?? NEW, match: summary.defaultMatch },
  });
  const { text, target, name, holds: kind, match } = watch();
  const setText = (lines: string) => setValue('text', lines);
  const [more, setMore] = useState<ReadListFile['lists']>([]);
  const list = lists.find((l) => l.id === target);
  const holds = list?.holds ?? kind;
  const lines = useDeferredValue(text);
  const listId = list?.id;
  const made = name.trim();
  const planAhead = usePlanAhead();
  const editOf = useCallback(
    (of: string): ListEdit | null => {
      if (of.trim() === '' || (listId === undefined && made === '')) return null;
      const into = listId === undefined ? { make: made } : { id: listId };
      return { do: 'paste', into, holds, text: of, match };
    },
    [listId, made, holds, match],
  );
  // The same edit as long as it says the same: a plan is asked for once.
  const edit = useMemo(() => editOf(lines), [editOf, lines]);

  function take([first, ...rest]: ReadListFile['lists']) {
    if (!first) return onClose();
    setText(first.text);
    setMore(rest);
    if (list) return;
    setValue('holds', first.holds);
    if (first.name) setValue('name', first.name);
  }

  async function bring(file: File | undefined) {
    if (!file) return;
    try {
      const { lists: read } = await call('POST lists/read-file', {
        ...{ query: { size: String(file.size) }, body: file },
      });
      take(read.map((one) => ({ ...one, name: one.name ?? file.name.replace(/\.[^.]+$/, '') })));
    } catch (error) {
      sayFailure(error);
    }
  }

  return (
    <DialogFrame
      title="Paste lines"
      says={
        holds === 'words'
          ? 'One text a line. Quotes make a phrase, square brackets exact; a column may name the match type. Bullets and numbers are taken off.'
          : 'One site, app or channel a line. Addresses are cleaned, and what lies below another is left out.'
      }
      width={860}
      onClose={onClose}
    >
      <div className="grid grid-cols-[1fr_340px] gap-x-5">
        <div className="flex min-w-0 flex-col gap-2 text-table">
          <div className="flex flex-wrap items-center gap-2">
            Into
            <SelectField
              label="Into"
              control={control}
              name="target"
              options={[{ key: NEW, says: 'a new list' }, ...namedOptions(lists)]}
            />
            {!list && (
              <>
                <InlineField
                  label="Name of the new list"
                  placeholder="Name of the new list"
                  maxLength={120}
                  className="flex-1"
                  {...register('name')}
                />
                of
                <SelectField label="What it holds" control={control} name="holds" options={HOLDS} />
              </>
            )}
          </div>
          <textarea
            autoFocus
            aria-label="Lines"
            rows={14}
            wrap="off"
            spellCheck={false}
            className="w-full resize-none rounded border border-line bg-paper px-2 py-1.5 font-mono text-small leading-5"
            placeholder={
              holds === 'words'
                ? 'free plans\n"bee movie"\n[hive tattoo]'
                : 'films.example\napps.games.example/hive'
            }
            {...register('text')}
            onPaste={(event) => {
              const pasted = event.clipboardData.getData('text/plain');
              if (pasted.length < MUCH) return;
              // A browser inserts thousands of lines one by one, which takes it many seconds.
              event.preventDefault();
              const { selectionStart, selectionEnd, value } = event.currentTarget;
              const whole = value.slice(0, selectionStart) + pasted + value.slice(selectionEnd);
              const wanted = editOf(whole);
              if (wanted) planAhead(wanted); // laying out the lines takes a while
              setText(whole);
            }}
          />
          <div className="flex flex-wrap items-center gap-3">
            <label className="cursor-pointer text-pine hover:underline focus-within:outline-2">
              or take a file (CSV, XLSX, JSON)
              <input
                type="file"
                className="sr-only"
                accept=".csv,.tsv,.txt,.xlsx,.json"
                onChange={(e) => void bring(e.target.files?.[0])}
              />
            </label>
            {holds === 'words' && (
              <span className="ml-auto flex items-center gap-1.5">
                Where nothing is said
                <SelectField
                  label="Where nothing is said"
                  control={control}
                  name="match"
                  options={optionsOf(MATCH_TYPES)}
                />
              </span>
            )}
          </div>
          {more.length > 0 && (
            <p className="text-soft">
              The file holds {more.length} more; each is shown after the one before.
            </p>
          )}
        </div>
        <div className="min-w-0">
          {edit ? (
            <EditInHand key={more.length} edit={edit} onDone={() => take(more)} onLeave={onClose} />
          ) : (
            <div className="flex flex-col items-start gap-2 text-table text-soft">
              <p>{text.trim() === '' ? 'Nothing is pasted yet.' : 'Give the new list a name.'}</p>
              <Button onClick={onClose}>Leave it</Button>
            </div>
          )}
        </div>
      </div>
    </DialogFrame>
  );
}
