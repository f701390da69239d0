'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { SentState } from '@/contracts/tray';
import { useAccount } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { FileButton } from '@/ui/file-button';
import { Select } from '@/ui/select';
import { useStored } from '@/ui/stored';
import { useTrayActions } from '../use-tray';
import { RecipeDialog } from './recipe-dialog';
import { ResultsDialog } from './results-dialog';

const LINK =
  'inline-flex min-h-6 items-center rounded border border-line bg-sheet px-2 text-table font-semibold hover:border-soft';

/** The sheet of a tray that was handed over, and what a person or a result sheet says became of it. */
export function HandedOver({ sent: { setId, state, waiting, total } }: { sent: SentState }) {
  const { address, query } = useRoutes();
  const { slug } = useAccount().summary;
  const { sayDone, takeBack } = useTrayActions();
  const { data } = useQuery(query('GET sheet-recipes'));
  const [chosen, setChosen] = useStored(`sheet-recipe-${slug}`, orUsual);
  const [file, setFile] = useState<File | null>(null);
  const [isEditing, setEditing] = useState(false);
  const recipe = data?.recipes.find(({ id }) => String(id) === chosen);
  const options = (data?.recipes ?? []).map(({ id, name }) => ({ key: String(id), says: name }));
  return (
    <>
      <div className="mt-1 flex flex-wrap items-center gap-1.5">
        {(['csv', 'xlsx'] as const).map((as) => (
          <a
            key={as}
            className={LINK}
            href={address('GET tray/sent/[set]/sheet', {
              params: { set: setId },
              query: { as, ...(recipe && { recipe: String(recipe.id) }) },
            })}
            download
          >
            {as.toUpperCase()}
          </a>
        ))}
        <span className="text-soft">columns</span>
        <Select
          label="Columns of the sheet"
          look="word"
          options={[{ key: '', says: 'as usual' }, ...options]}
          value={recipe ? chosen : ''}
          onChange={setChosen}
        />
        <button type="button" className="min-h-6 text-pine hover:underline" onClick={() => setEditing(true)}>
          {recipe ? 'change them' : 'as I like them …'}
        </button>
      </div>
      <div className="mt-1 flex flex-wrap gap-1.5">
        {state === 'handed over' && (
          <Button tone="main" onClick={() => void sayDone(setId)}>
            It was carried out
          </Button>
        )}
        <FileButton
          says="Read a result sheet"
          label="Result sheet"
          accept=".csv,.tsv,.txt,.xlsx"
          onPick={setFile}
        />
        <Button onClick={() => void takeBack(setId)}>Back to the tray</Button>
      </div>
      {waiting.length > 1 && (
        <details className="mt-1">
          <summary className="cursor-pointer text-pine">One by one</summary>
          <ul className="max-h-44 overflow-y-auto" tabIndex={0}>
            {waiting.map(({ id, said }) => (
              <li key={id} className="flex items-start gap-1.5 border-b border-line py-0.5">
                <span className="min-w-0 flex-1 break-words">{said}</span>
                <button
                  type="button"
                  className="min-h-6 shrink-0 text-pine hover:underline"
                  aria-label={`Back to the tray: ${said}`}
                  onClick={() => void takeBack(setId, [id])}
                >
                  back
                </button>
              </li>
            ))}
          </ul>
          {total > waiting.length && <p className="text-soft">The sheet lists all {total}.</p>}
        </details>
      )}
      {isEditing && data && (
        <RecipeDialog
          setId={setId}
          recipe={recipe}
          words={data.words}
          onKept={(id) => setChosen(String(id))}
          onClose={() => setEditing(false)}
        />
      )}
      {file && <ResultsDialog setId={setId} file={file} onClose={() => setFile(null)} />}
    </>
  );
}

/** The id of the recipe chosen last in this browser; empty for the usual sheet. */
const orUsual = (text: string | null) => text ?? '';

/** Takes the sheet that came back. */
