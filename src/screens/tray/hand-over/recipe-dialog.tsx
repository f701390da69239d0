'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ArrowDown, ArrowUp } from 'lucide-react';
import {
  faultOfRecipe,
  layRow,
  SHEET_COLUMNS,
  USUAL_RECIPE,
  WORDED_COLUMNS,
  type SheetColumn,
  type SheetRecipe,
  type WordedColumn,
} from '@/core';
import type { SheetRecipes, StoredSheetRecipe } from '@/contracts/sheets';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { DialogFrame } from '@/ui/dialog-frame';
import { Fault, FIELD, InlineField } from '@/ui/form';
import { sayFailure } from '../use-tray';

type Line = { column: SheetColumn; heading: string; isIn: boolean };

type Props = {
  setId: number;
  /** the one that is changed; none for a new one */
  recipe: StoredSheetRecipe | undefined;
  /** the words that stand in columns that hold one of a few */
  words: SheetRecipes['words'];
  onKept: (id: number) => void;
  onClose: () => void;
};

/** Which columns a sheet has, in what order, under what headings and with what words; kept under a name. */
export function RecipeDialog({ setId, recipe, words, onKept, onClose }: Props) {
  const { call, query } = useRoutes();
  const undoable = useUndoable();
  const [lines, setLines] = useState(() => linesOf(recipe ?? USUAL_RECIPE));
  const [own, setOwn] = useState<SheetRecipe['words']>(recipe?.words ?? {});
  const [name, setName] = useState(recipe?.name ?? '');
  const [rowsPerFile, setRowsPerFile] = useState(String(recipe?.rowsPerFile ?? ''));
  const [fault, setFault] = useState<string>();
  const { data } = useQuery(query('GET tray/sent/[set]/rows', { params: { set: setId } }));
  const made: SheetRecipe = {
    name: name.trim(),
    columns: lines.flatMap(({ column, heading, isIn }) => (isIn ? [{ column, heading }] : [])),
    words: withoutBlanks(own),
    rowsPerFile: rowsPerFile.trim() === '' ? null : Number(rowsPerFile),
  };
  const change = (at: number, part: Partial<Line>) =>
    setLines(lines.map((line, i) => (i === at ? { ...line, ...part } : line)));
  const move = (at: number, by: -1 | 1) => {
    const moved = [...lines];
    [moved[at], moved[at + by]] = [moved[at + by]!, moved[at]!];
    setLines(moved);
  };
  const rename = (column: WordedColumn, word: string, ownWord: string) =>
    setOwn({ ...own, [column]: { ...own[column], [word]: ownWord } });

  async function keep() {
    const wrong = faultOf(made);
    setFault(wrong);
    if (wrong !== undefined) return;
    try {
      const { id } = await call('POST sheet-recipes', { body: made });
      onKept(id);
      onClose();
      await undoable(`Kept as “${made.name}”`, () =>
        recipe?.name === made.name
          ? call('POST sheet-recipes', { body: withoutId(recipe) })
          : call('DELETE sheet-recipes/[recipe]', { params: { recipe: id } }),
      );
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'It was not kept.');
    }
  }

  async function forget(kept: StoredSheetRecipe) {
    try {
      await call('DELETE sheet-recipes/[recipe]', { params: { recipe: kept.id } });
      onClose();
      await undoable(`“${kept.name}” forgotten`, () => call('POST sheet-recipes', { body: withoutId(kept) }));
    } catch (error) {
      sayFailure(error);
    }
  }

  return (
    <DialogFrame
      title="Columns of the sheet"
      says="One row a change. Untick what is not needed, put the columns in your order, and name them as your platform or your colleagues do. A result sheet is read by the same names."
      width={860}
      isTall
      onClose={onClose}
    >
      <form
        noValidate
        className="flex min-h-0 flex-1 flex-col"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <div className="grid min-h-0 flex-1 grid-cols-[1fr_1fr] gap-5 overflow-y-auto px-5 py-2">
          <ul aria-label="Columns" className="flex flex-col">
            {lines.map(({ column, heading, isIn }, at) => (
              <li key={column} className="flex items-center gap-1.5 border-b border-line py-0.5">
                <Check
                  aria-label={`Column ${column}`}
                  checked={isIn}
                  onChange={() => change(at, { isIn: !isIn })}
                />
                <span className={`w-24 shrink-0 text-table ${isIn ? '' : 'text-soft'}`}>{column}</span>
                <InlineField
                  label={`Heading of ${column}`}
                  className="min-w-0 flex-1"
                  value={heading}
                  disabled={!isIn}
                  onChange={({ target }) => change(at, { heading: target.value })}
                />
                <MoveButton says={`${column} one up`} isDisabled={at === 0} onClick={() => move(at, -1)}>
                  <ArrowUp aria-hidden size={14} />
                </MoveButton>
                <MoveButton
                  says={`${column} one down`}
                  isDisabled={at === lines.length - 1}
                  onClick={() => move(at, 1)}
                >
                  <ArrowDown aria-hidden size={14} />
                </MoveButton>
              </li>
            ))}
          </ul>
          <div className="flex flex-col gap-2">
            <label className="block">
              Name of the recipe
              <input
                autoFocus
                className={`${FIELD} mt-0.5 w-full`}
                value={name}
                onChange={({ target }) => setName(target.value)}
              />
            </label>
            <label className="flex items-center gap-1.5">
              A new file after
              <input
                inputMode="numeric"
                className={`${FIELD} w-20 tabular-nums`}
                value={rowsPerFile}
                placeholder="all"
                onChange={({ target }) => setRowsPerFile(target.value)}
              />
              rows
            </label>
            {WORDED_COLUMNS.filter((column) => lines.some((l) => l.column === column && l.isIn)).map(
              (column) => (
                <details key={column}>
                  <summary className="cursor-pointer text-pine">Words under {column}</summary>
                  <ul>
                    {words[column].map((word) => (
                      <li key={word} className="flex items-center gap-1.5 py-0.5">
                        <span className="flex-1 text-table">{word}</span>
                        <InlineField
                          label={`${column}: own word for ${word}`}
                          className="w-44"
                          placeholder={word}
                          value={own[column]?.[word] ?? ''}
                          onChange={({ target }) => rename(column, word, target.value)}
                        />
                      </li>
                    ))}
                  </ul>
                </details>
              ),
            )}
          </div>
        </div>
        <Preview recipe={made} rows={data?.rows ?? []} />
        <div className="flex items-center gap-2 border-t border-line px-5 py-2">
          <Button type="submit" tone="main">
            Keep these columns
          </Button>
          <Button onClick={onClose}>Not now</Button>
          {fault !== undefined && <Fault>{fault}</Fault>}
          {recipe && (
            <Button className="ml-auto" tone="quiet" onClick={() => void forget(recipe)}>
              Forget “{recipe.name}”
            </Button>
          )}
        </div>
      </form>
    </DialogFrame>
  );
}

/** The head of the sheet as it will be, with its first rows. */
function Preview({ recipe, rows }: { recipe: SheetRecipe; rows: readonly Parameters<typeof layRow>[0][] }) {
  return (
    <div
      className="overflow-x-auto border-t border-line bg-paper px-5 py-2"
      tabIndex={0}
      role="group"
      aria-label="First rows"
    >
      <table className="text-small whitespace-nowrap">
        <thead>
          <tr>
            {recipe.columns.map(({ column, heading }) => (
              <th key={column} className="border border-line px-1.5 text-left font-semibold">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((cells) => (
            <tr key={cells.Change}>
              {layRow(cells, recipe).map((cell, at) => (
                <td key={recipe.columns[at]!.column} className="max-w-60 truncate border border-line px-1.5">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function MoveButton({
  says,
  isDisabled,
  onClick,
  children,
}: {
  says: string;
  isDisabled: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      className="grid size-6 place-content-center rounded border border-line disabled:opacity-40"
      aria-label={says}
      disabled={isDisabled}
      onClick={onClick}
    >
      {children}
    </button>
  );
}

/** All columns: those of the recipe in its order, then the others. */
function linesOf({ columns }: SheetRecipe): Line[] {
  const others = SHEET_COLUMNS.filter((column) => !columns.some((c) => c.column === column));
  return [
    ...columns.map((c) => ({ ...c, isIn: true })),
    ...others.map((column) => ({ column, heading: column, isIn: false })),
  ];
}

function withoutBlanks(words: SheetRecipe['words']): SheetRecipe['words'] {
  return Object.fromEntries(
    Object.entries(words).map(([column, known]) => [
      column,
      Object.fromEntries(Object.entries(known).filter(([, ownWord]) => ownWord.trim() !== '')),
    ]),
  );
}

const withoutId = ({ name, columns, words, rowsPerFile }: StoredSheetRecipe): SheetRecipe => ({
  ...{ name, columns, words, rowsPerFile },
});

function faultOf(recipe: SheetRecipe): string | undefined {
  if (recipe.name === '') return 'Give the recipe a name.';
  const { rowsPerFile } = recipe;
  if (rowsPerFile !== null && !(Number.isInteger(rowsPerFile) && rowsPerFile >= 1))
    return 'Say after how many rows a new file begins, or leave it empty.';
  return faultOfRecipe(recipe);
}
