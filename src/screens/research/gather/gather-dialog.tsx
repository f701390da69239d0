'use client';

import { useState, type ReactNode } from 'react';
import type { Gather, GatheredAnswer, SheetView } from '@/contracts/research';
import { counted } from '@/core';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { TabbedView } from '@/ui/tabs';
import { GatherButton } from './way';
import { BriefForm } from './brief-form';
import { CombinationsForm } from './combinations-form';
import { FileForm } from './file-form';
import { PacksForm } from './packs-form';
import { PasteForm } from './paste-form';
import { SourceForm } from './source-form';

const WAYS = ['source', 'paste', 'brief', 'packs', 'combinations', 'file', 'keywords'] as const;
type Way = (typeof WAYS)[number];
const NAMES: Record<Way, string> = {
  source: 'Idea source',
  paste: 'Paste',
  brief: 'Brief',
  packs: 'Starter packs',
  combinations: 'Combinations',
  file: 'File',
  keywords: 'Live keywords',
};

/** Where ideas are to come from. It stays open, for one comes seldom alone. */
export function GatherDialog({ view, onClose }: { view: SheetView; onClose: () => void }) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const [way, setWay] = useState<Way>('source');
  const [isGathering, setGathering] = useState(false);
  const [told, setTold] = useState<GatheredAnswer>();
  const [error, setError] = useState<Error | null>(null);
  async function gather(asked: Gather) {
    setGathering(true);
    setError(null);
    setTold(undefined);
    try {
      setTold(await call('POST research/[sheet]/gather', { params: { sheet: view.sheet.id }, body: asked }));
      await refresh();
    } catch (caught) {
      setError(caught as Error);
    } finally {
      setGathering(false);
    }
  }
  const props = { onGather: (asked: Gather) => void gather(asked), isGathering };
  const forms: Record<Way, ReactNode> = {
    source: <SourceForm {...props} stems={view.sheet.stems} />,
    paste: <PasteForm {...props} />,
    brief: <BriefForm {...props} />,
    packs: <PacksForm {...props} />,
    combinations: <CombinationsForm {...props} />,
    file: <FileForm {...props} />,
    keywords: (
      <>
        <p>All keywords of the account that are live, as ideas of this sheet.</p>
        <GatherButton isGathering={isGathering} onPress={() => void gather({ kind: 'keywords' })} />
      </>
    ),
  };
  return (
    <DialogFrame title="Gather ideas" says={`into ${view.sheet.name}`} width={680} onClose={onClose}>
      <TabbedView
        label="Where from"
        tabs={WAYS.map((value) => ({ value, name: NAMES[value] }))}
        value={way}
        onChange={setWay}
      >
        <div className="flex flex-col gap-2 pt-2">{forms[way]}</div>
      </TabbedView>
      <ErrorText error={error} />
      {told && <Told told={told} isReady={way === 'brief' || way === 'packs'} />}
      <div className="flex justify-end">
        <Button onClick={onClose}>Close</Button>
      </div>
    </DialogFrame>
  );
}

function Told({ told, isReady }: { told: GatheredAnswer; isReady: boolean }) {
  const { given, added, missing, title, lines } = told;
  return (
    <div role="status" className="border-t border-line pt-2 text-table">
      <p>
        <b>{counted(given, isReady ? 'candidate' : 'idea')}</b> from {title}: {formatCount(added)} new to the
        sheet.{isReady && ' They wait among the candidates, each checked against the account.'}
      </p>
      {missing !== null && <p className="text-rust">{missing}</p>}
      {lines && (
        <>
          <p className="text-soft">
            {counted(lines.cleaned, 'line')} cleaned, {formatCount(lines.twice)} said twice,{' '}
            {formatCount(lines.refused)} refused.
          </p>
          {lines.firstRefused.length > 0 && (
            <ul className="max-h-28 overflow-y-auto text-small" aria-label="Refused" tabIndex={0}>
              {lines.firstRefused.map(({ line, raw, reason }) => (
                <li key={line}>
                  Line {line}: <b className="break-words">{raw.slice(0, 120)}</b>{' '}
                  <span className="text-rust">{reason}</span>
                </li>
              ))}
            </ul>
          )}
          {lines.firstCleaned.length > 0 && (
            <details className="text-small">
              <summary className="cursor-pointer text-pine">What was cleaned</summary>
              <ul className="max-h-28 overflow-y-auto" tabIndex={0}>
                {lines.firstCleaned.map(({ line, raw, became }) => (
                  <li key={line} className="break-words">
                    <span className="text-soft">{raw.slice(0, 120)}</span> → {became.join(' · ')}
                  </li>
                ))}
              </ul>
            </details>
          )}
        </>
      )}
    </div>
  );
}
