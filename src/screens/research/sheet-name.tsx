'use client';

import { useState } from 'react';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { InlineField } from '@/ui/form';
import { ErrorText } from '@/ui/said';

type Props = { sheet: { id: number; name: string } };

/** The name of the sheet, to change, and the sheet to throw away. */
export function SheetName({ sheet: { id, name } }: Props) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const undoable = useUndoable();
  const [text, setText] = useState(name);
  const [error, setError] = useState<Error | null>(null);
  const params = { sheet: id };
  const nameIt = (wanted: string) => call('PATCH research/[sheet]', { params, body: { name: wanted } });
  async function rename() {
    const wanted = text.trim();
    if (wanted === name || wanted === '') return setText(name);
    try {
      setError(null);
      await nameIt(wanted);
      await undoable(`${name} is ${wanted} now`, () => nameIt(name));
    } catch (caught) {
      setError(caught as Error);
    }
  }
  async function throwAway() {
    try {
      await call('DELETE research/[sheet]', { params });
      await undoable(`${name} thrown away`, () => call('POST research/[sheet]/back', { params }));
      await refresh();
    } catch (caught) {
      setError(caught as Error);
    }
  }
  return (
    <section aria-label="This sheet">
      <h2 className="font-semibold">This sheet</h2>
      <form
        aria-label="Name of the sheet"
        className="mt-1 flex flex-wrap gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          void rename();
        }}
      >
        <InlineField
          label="Name of this sheet"
          className="w-full"
          maxLength={80}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        {text.trim() !== name && <Button type="submit">Name it</Button>}
        <Button onClick={() => void throwAway()}>Throw it away</Button>
      </form>
      <ErrorText error={error} />
    </section>
  );
}
