'use client';

import * as v from 'valibot';
import { toast } from 'sonner';
import type { ListFile, ListLine } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { useAccount } from '@/screens/frame/account-context';
import { sayFailure } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { SelectField, TextField, useValidForm } from '@/ui/form';
import { ListNameSchema } from '../edit/new-list';
import { useRoutes, call } from '@/screens/frame/data/routes';
import { counted } from '@/core';

const CopySchema = v.object({ to: v.string(), name: ListNameSchema });

/** Puts a list like this one in the tray of another account. */
export function CopyToAccount({ list, onDone }: { list: ListLine; onDone: () => void }) {
  const { accounts, summary } = useAccount();
  const file = useRoutes().address('GET lists/[list]/file', {
    params: { list: list.id },
    query: { as: 'json' },
  });
  const others = accounts.filter((a) => a.slug !== summary.slug);
  const { register, control, handleSubmit, formState } = useValidForm(CopySchema, {
    ...{ to: others[0]?.slug ?? '', name: list.name },
  });
  if (others.length === 0) return <p className="text-table text-soft">There is no other account here.</p>;

  async function copy({ to, name }: v.InferInput<typeof CopySchema>) {
    try {
      const { lists } = await ask<ListFile>(file);
      const { holds, entries, placements } = lists[0]!;
      const text =
        holds === 'placements'
          ? placements.join('\n')
          : ['keyword\tmatch type', ...entries.map((e) => `${e.text}\t${e.match}`)].join('\n');
      const edit: ListEdit = { do: 'paste', into: { make: name.trim() }, holds, text };
      const { changeIds, heldBack, refused } = await call(to, 'POST lists/edit', { body: { edit } });
      const left = (heldBack?.count ?? 0) + refused.count;
      toast(
        `${counted(changeIds.length, 'change')} put in the tray of ${others.find((a) => a.slug === to)!.name}${left > 0 ? `; ${left} held back or refused there` : ''}`,
      );
      onDone();
    } catch (error) {
      sayFailure(error);
    }
  }

  return (
    <form
      noValidate
      className="mt-1 flex flex-col gap-2 text-table"
      onSubmit={(event) => void handleSubmit(copy)(event)}
    >
      <p>
        Put it in the tray of{' '}
        <SelectField
          label="Put it in the tray of"
          control={control}
          name="to"
          options={others.map(({ slug, name }) => ({ key: slug, says: name }))}
        />
      </p>
      <TextField
        label="as a list named"
        maxLength={120}
        fault={formState.errors.name?.message}
        {...register('name')}
      />
      <div className="flex gap-2">
        <Button tone="main" type="submit">
          Copy it
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}
