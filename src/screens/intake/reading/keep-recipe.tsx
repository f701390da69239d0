'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import * as v from 'valibot';
import type { ReadingAnswer } from '@/contracts/intake';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { TextField, useValidForm } from '@/ui/form';
import { isDecided } from './reading-state';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';

const RecipeSchema = v.object({
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'Give the recipe a name.')),
});

/** Keeps how the file is read under a name; the next one with the same columns is read so by itself. */
export function KeepRecipe({ answer: { reading, decisions, recipe, file } }: { answer: ReadingAnswer }) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const { register, handleSubmit, formState } = useValidForm(RecipeSchema, {
    name: recipe?.name ?? file.name.replace(/\.[a-z]+$/i, ''),
  });
  const [kept, setKept] = useState<string | null>(null);
  if (!isDecided(decisions) || recipe) return null;
  async function keep({ name }: { name: string }) {
    try {
      const headers = reading.columns.map((column) => column.header);
      await call('POST intake/recipes', { body: { name, headers, decisions } });
      toast(`Kept as the recipe ${name}. Files with the same columns are read by it.`);
      setKept(name);
      await refresh();
    } catch (error) {
      sayFailure(error);
    }
  }
  if (kept) return <p className="text-soft">Kept as the recipe {kept}.</p>;
  return (
    <form
      noValidate
      className="mt-1 flex items-end gap-1.5"
      onSubmit={(event) => void handleSubmit(keep)(event)}
    >
      <TextField
        label="Keep this reading as a recipe"
        className="flex-1 text-soft"
        maxLength={120}
        fault={formState.errors.name?.message}
        {...register('name')}
      />
      <Button type="submit">Keep</Button>
    </form>
  );
}
