'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { ReadingAnswer } from '@/contracts/intake';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { isDecided } from './reading-state';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';

/** Keeps how the file is read under a name; the next one with the same columns is read so by itself. */
export function KeepRecipe({ answer: { reading, decisions, recipe, file } }: { answer: ReadingAnswer }) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const [name, setName] = useState(recipe?.name ?? file.name.replace(/\.[a-z]+$/i, ''));
  const [kept, setKept] = useState(false);
  if (!isDecided(decisions) || recipe) return null;
  async function keep() {
    try {
      const headers = reading.columns.map((column) => column.header);
      await call('POST intake/recipes', { body: { name, headers, decisions } });
      toast(`Kept as the recipe ${name}. Files with the same columns are read by it.`);
      setKept(true);
      await refresh();
    } catch (error) {
      sayFailure(error);
    }
  }
  if (kept) return <p className="text-soft">Kept as the recipe {name}.</p>;
  return (
    <form
      className="mt-1 flex items-end gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <label className="min-w-0 flex-1 text-soft">
        Keep this reading as a recipe
        <input
          className="w-full rounded border border-line bg-sheet px-1.5 text-ink"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <Button type="submit" disabled={name.trim() === ''}>
        Keep
      </Button>
    </form>
  );
}
