'use client';

import { useMemo, type KeyboardEvent } from 'react';
import { counted, listed } from '@/core';
import type { EntryTermLine, ShownLanes } from '@/contracts/lanes';
import { useMay } from '@/screens/frame/account-context';
import { InHand } from '@/screens/frame/in-hand';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { useLineTable } from '@/screens/frame/line-table';
import { Button, Key } from '@/ui/button';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { useBroughtColumns } from './brought-columns';
import type { LanePlans } from './use-lane-plans';

const keyOf = ({ tier, text }: EntryTermLine) => `${tier} ${text}`;

type Props = { shown: ShownLanes; plans: LanePlans };

/** What lets queries into the tiers, and where it is missing as a negative. */
export function EntryTermsView({ shown, plans }: Props) {
  const { entryTerms, tiers, plan } = shown;
  const columns = useEntryTermColumns(shown);
  const table = useLineTable('entry-terms', columns, entryTerms, {
    ...{ first: { by: 'cost', isDown: true }, over: shown.key, keyOf },
  });
  const { may } = useMay('prepare');
  const [single] = useSingleKeys();
  const { line } = table;
  const missing = missingOf(shown, line);
  const mayMove = may && plan !== null;
  const putMissing = () =>
    missing.length > 0 && void plans.put(shown, missing, `the negatives of “${line!.text}”`);
  const move = (to: number | null) => {
    if (line && plan && to !== line.tier) void plans.move(plan, line.text, line.tier, to);
  };
  function onKey(event: KeyboardEvent): boolean {
    if (!line) return false;
    if (event.key === 'Enter' && may) putMissing();
    else if (event.key === 'Delete' && mayMove) move(null);
    else if (!isPlain(event, single) || !mayMove || !/^[2-9]$/.test(event.key)) return false;
    else if (Number(event.key) > tiers.length) return false;
    else move(Number(event.key) - 1);
    return true;
  }
  return (
    <>
      <DataTable
        label="Entry terms"
        {...table.table}
        onKey={onKey}
        saveAs={`entry terms of ${shown.name}`}
        keysHelp="Arrows move; Enter puts its missing negatives in the tray, a digit moves it to that tier, Delete takes it out of the plan."
        empty={<p>The plan has no entry terms yet: change it, and name what its later tiers are for.</p>}
      />
      <InHand
        title={line?.text}
        actions={
          missing.length > 0 && (
            <Button tone="main" disabled={!may} onClick={putMissing}>
              Stop it in {listed(line!.missingIn)} <Key>↵</Key>
            </Button>
          )
        }
      >
        {!line ? (
          <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
        ) : (
          <div className="mt-1 flex flex-col gap-1.5 text-table">
            <p>
              Lets into <b>{tiers[line.tier]!.name}</b> what {plan === null ? 'its keywords say' : 'holds it'}
              : {counted(line.clicks, 'click')} in these days, whoever served them.
            </p>
            {line.fault !== null && <p className="text-rust">{line.fault}</p>}
            <p className={line.missingIn.length > 0 ? 'text-rust' : 'text-soft'}>
              {line.missingIn.length > 0
                ? `No negative keeps it out of ${listed(line.missingIn)}.`
                : 'Each earlier tier stops it, there or in the tray.'}
            </p>
            {plan === null ? (
              <p className="text-soft">It is a keyword of a seat: Promote gives seats their keywords.</p>
            ) : (
              <>
                <p className="flex flex-wrap items-center gap-1.5">
                  Move it to
                  {tiers.map(
                    ({ name }, number) =>
                      number > 0 &&
                      number !== line.tier && (
                        <Button key={name} disabled={!may} onClick={() => move(number)}>
                          {name} <Key>{number + 1}</Key>
                        </Button>
                      ),
                  )}
                  <Button disabled={!may} onClick={() => move(null)}>
                    Take it out <Key>Del</Key>
                  </Button>
                </p>
                {line.variants.length > 0 && (
                  <p className="flex flex-wrap items-center gap-1.5">
                    Also written
                    {line.variants.map((text) => (
                      <Button
                        key={text}
                        disabled={!may}
                        onClick={() => void plans.move(plan, text, null, line.tier)}
                      >
                        Add “{text}”
                      </Button>
                    ))}
                  </p>
                )}
              </>
            )}
          </div>
        )}
      </InHand>
    </>
  );
}

/** The negatives of an entry term that tiers before its own do not have. */
export function missingOf({ missing }: ShownLanes, line: EntryTermLine | undefined): ShownLanes['missing'] {
  if (!line || line.missingIn.length === 0) return [];
  return missing.filter((change) => 'text' in change && change.text === line.text);
}

function useEntryTermColumns({ tiers }: ShownLanes): readonly Column<EntryTermLine>[] {
  const brought = useBroughtColumns<EntryTermLine>();
  return useMemo(
    () => [
      {
        ...{ id: 'text', name: 'entry term', px: 150, share: 1.2, isText: true, isSortable: true },
        value: ({ text }) => text,
        cell: ({ text }) => <b>{text}</b>,
      },
      {
        ...{ id: 'tier', name: 'lets into', px: 120, share: 0.9, isText: true, isSortable: true },
        value: ({ tier }) => tiers[tier]?.name ?? '',
        cell: ({ tier }) => tiers[tier]?.name,
      },
      ...brought,
      {
        ...{
          id: 'missing',
          name: 'missing as a negative in',
          px: 140,
          share: 1,
          isText: true,
          isSortable: true,
        },
        value: ({ missingIn }) => missingIn.join(', '),
        cell: ({ missingIn }) => <span className="text-rust">{missingIn.join(', ')}</span>,
      },
      {
        ...{ id: 'note', name: 'to look at', px: 140, share: 1.2, isText: true, isSortable: true },
        value: ({ fault, variants }) => fault ?? variants.join(', '),
        cell: ({ fault, variants }) =>
          fault !== null ? (
            <span className="text-rust">{fault}</span>
          ) : (
            variants.length > 0 && <span className="text-soft">also {variants.join(', ')}</span>
          ),
      },
    ],
    [tiers, brought],
  );
}
