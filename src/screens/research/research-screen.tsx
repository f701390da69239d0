'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { useRoutes } from '@/screens/frame/data/routes';
import { useRefresh } from '@/screens/frame/data/refresh';
import { Button } from '@/ui/button';
import { Fault, InlineField, useValidForm } from '@/ui/form';
import { EmptyState, ErrorText } from '@/ui/said';
import { Select } from '@/ui/select';
import { NewSheetSchema } from '@/contracts/research';
import { CandidatesView } from './candidates/candidates-view';
import { useCandidates } from './candidates/use-candidates';
import { Filters } from './filters';
import { GroupsView } from './groups/groups-view';
import { useGroups } from './groups/use-groups';
import { GatherDialog } from './gather/gather-dialog';
import { RemainderInHand } from './hand/remainder-in-hand';
import { useRemainder } from './hand/use-remainder';
import { Origins } from './origins';
import { RemaindersTable } from './remainders-table';
import { toQuery, useResearchUrl, type ResearchUrl } from './research-url';
import { StateTabs } from './state-tabs';
import { asTyped, TypedWords } from './typed-words';

/** Ideas before they cost anything: gathered into sheets, read by what is left of them, and decided. */
export function ResearchScreen() {
  const { query } = useRoutes();
  const { data, error } = useQuery(query('GET research'));
  const [url, setUrl] = useResearchUrl();
  const change = useCallback((next: Partial<ResearchUrl>) => void setUrl(next), [setUrl]);
  const sheet = data?.sheets.find(({ id }) => id === url.sheet) ?? data?.sheets[0];
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line bg-paper px-4 py-2">
        <h1 className="font-title text-title font-bold">Research</h1>
        {data && sheet && (
          <Select
            look="word"
            label="Sheet"
            value={String(sheet.id)}
            options={data.sheets.map(({ id, name }) => ({ key: String(id), says: name }))}
            onChange={(id) => change({ sheet: Number(id), source: null })}
          />
        )}
        {sheet && <Filters url={url} onChange={change} />}
        <span className="ml-auto">
          <NewSheet onMade={(id) => change({ sheet: id, source: null })} />
        </span>
      </header>
      <ErrorText error={error} isWhole />
      {data && !sheet && (
        <EmptyState>
          No research sheet yet. Begin one above: it gathers keyword ideas, and shows what is left of them
          without the words that they all hold.
        </EmptyState>
      )}
      {sheet && <Sheet key={sheet.id} sheetId={sheet.id} url={url} onChange={change} />}
    </div>
  );
}

type SheetProps = { sheetId: number; url: ResearchUrl; onChange: (change: Partial<ResearchUrl>) => void };

function Sheet({ sheetId, url, onChange }: SheetProps) {
  const { query } = useRoutes();
  const [cursor, setCursor] = useState(0);
  const [marks, setMarks] = useState<ReadonlySet<string>>(new Set());
  const [stopsTyped, setStopsTyped] = useState(false);
  const [gathers, setGathers] = useState(false);
  const params = { sheet: sheetId };
  const { data: view } = useQuery(query('GET research/[sheet]', { params }));
  const asked = { params, query: { ...toQuery(url), most: '1000' } };
  const [going, setGoing] = useState<{ from: unknown; texts: ReadonlySet<string> }>();
  const {
    data: known,
    error,
    isPlaceholderData,
  } = useQuery({
    ...query('GET research/[sheet]/remainders', asked),
    placeholderData: keepPreviousData,
  });
  // What was decided goes at once; the next answer has the counts.
  const hidden = going?.from === known ? going?.texts : undefined;
  const data =
    known && hidden ? { ...known, lines: known.lines.filter(({ text }) => !hidden.has(text)) } : known;
  const at = Math.min(cursor, Math.max(0, (data?.lines.length ?? 0) - 1));
  const marked = data?.lines.filter(({ text }) => marks.has(text)) ?? [];
  const groups = useGroups(sheetId, url);
  const candidates = useCandidates(sheetId, view, url);
  const [isGrouped, isReady] = [url.shown === 'groups', url.shown === 'candidates'];
  const typed = stopsTyped ? asTyped(url.typed) : undefined;
  const inHand = isGrouped || isReady ? undefined : (typed ?? data?.lines[at]);
  const remainder = useRemainder(sheetId, inHand, url, {
    ...(typed ? {} : { marked }),
    onGoing: (texts) => setGoing(texts ? { from: known, texts: new Set(texts) } : undefined),
  });
  return (
    <>
      <div className="flex min-h-0 flex-1">
        <Origins
          view={view}
          source={url.source}
          onSource={(source, isReady) => onChange({ source, ...(isReady && { shown: 'candidates' }) })}
          onGather={() => setGathers(true)}
          onType={(texts) => onChange({ typed: texts.join(', '), holds: 'any', shown: 'open' })}
        />
        <section aria-label="Remainders" className="flex min-w-0 flex-1 flex-col border-l border-line">
          <StateTabs
            shown={url.shown}
            counts={data?.counts}
            groups={groups.view?.groups.length}
            candidates={data?.candidates}
            onChange={(shown) => onChange({ shown })}
          >
            {isGrouped && view ? (
              <GroupsView sheet={view.sheet} groups={groups} url={url} onChange={onChange} />
            ) : isReady && view ? (
              <CandidatesView candidates={candidates} sheet={view.sheet} />
            ) : error ? (
              <ErrorText error={error} isWhole />
            ) : (
              <>
                {url.typed !== '' && (
                  <TypedWords
                    url={url}
                    isInHand={typed !== undefined}
                    onHand={setStopsTyped}
                    onChange={onChange}
                  />
                )}
                <RemaindersTable
                  page={data}
                  cursor={at}
                  marks={marks}
                  onMark={setMarks}
                  remainder={remainder}
                  sort={url.sort}
                  isStale={isPlaceholderData}
                  view={JSON.stringify(asked)}
                  onCursor={setCursor}
                  onSort={(sort) => onChange({ sort })}
                />
              </>
            )}
          </StateTabs>
        </section>
      </div>
      {!isGrouped && !isReady && <RemainderInHand remainder={remainder} />}
      {gathers && view && <GatherDialog view={view} onClose={() => setGathers(false)} />}
    </>
  );
}

function NewSheet({ onMade }: { onMade: (id: number) => void }) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const [isOpen, setOpen] = useState(false);
  const form = useValidForm(NewSheetSchema, { name: '' });
  const [declined, setDeclined] = useState<string>();
  if (!isOpen) return <Button onClick={() => setOpen(true)}>New sheet</Button>;
  const submit = form.handleSubmit(async (body) => {
    try {
      const { sheetId } = await call('POST research', { body });
      await refresh();
      form.reset();
      setOpen(false);
      onMade(sheetId);
    } catch (error) {
      setDeclined((error as Error).message);
    }
  });
  return (
    <form
      aria-label="New sheet"
      className="flex flex-wrap items-baseline gap-1.5"
      onSubmit={(event) => void submit(event)}
      onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
    >
      <InlineField
        label="Name of the sheet"
        placeholder="Spring hives"
        autoFocus
        {...form.register('name')}
        fault={form.formState.errors.name?.message}
      />
      <Button type="submit">Begin it</Button>
      {(form.formState.errors.name?.message ?? declined) && (
        <Fault>{form.formState.errors.name?.message ?? declined}</Fault>
      )}
    </form>
  );
}
