'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { KeyboardEvent } from 'react';
import { counted } from '@/core';
import type { RuleAct, RuleActs } from '@/contracts/findings';
import { useAccount } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { InHand } from '@/screens/frame/in-hand';
import { useLineTable } from '@/screens/frame/line-table';
import { useMoney } from '@/screens/frame/money';
import { Waiting } from '@/screens/frame/waiting';
import { Key } from '@/ui/button';
import { formatDay } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { DataTable } from '@/ui/table/data-table';
import { useActColumns } from './act-columns';

const NONE: RuleAct[] = [];
const ASKED = ['GET rules/acts'] as const;
const keyOf = ({ ruleId, term }: RuleAct) => `${ruleId} ${term}`;

/** What rules did by themselves, and what each kept of what it promised. */
export function ActsView() {
  const { query } = useRoutes();
  const asked = useQuery(query('GET rules/acts'));
  const view = asked.data;
  const { slug } = useAccount().summary;
  const router = useRouter();
  const columns = useActColumns();
  const table = useLineTable('acts', columns, view?.acts ?? NONE, {
    ...{ first: { by: 'day', isDown: true }, over: 'acts', keyOf },
  });
  const { line } = table;
  const entry = line?.entry ? `/${slug}/ledger?entry=${line.entry}` : null;
  function onKey(event: KeyboardEvent): boolean {
    if (event.key !== 'Enter' || entry === null) return false;
    router.push(entry);
    return true;
  }
  if (asked.error) return <ErrorText error={asked.error} isWhole />;
  return (
    <>
      <Waiting query={asked} routes={ASKED} />
      <DataTable
        label="What rules did"
        {...table.table}
        marks={table.marks}
        onKey={onKey}
        saveAs="what-rules-did"
        keysHelp="Arrows move, Space marks; Enter goes to the entry in the Ledger."
        empty={
          view && (
            <p>No rule has done anything by itself. One does where its sentence ends with “by itself”.</p>
          )
        }
      />
      <InHand title={line?.term}>
        {line && view ? (
          <div className="mt-1 flex flex-col gap-1.5 text-table">
            <p>
              The rule “{line.rule}” (version {line.version}) acted on {formatDay(line.day)} by{' '}
              {counted(line.changes, 'change')}: {line.state}.
            </p>
            {line.isPromising && <Kept of={line} says="It" />}
            <OfRule rules={view.rules} ruleId={line.ruleId} />
            {entry !== null && (
              <p>
                <Link className="text-pine underline" href={entry}>
                  In the Ledger
                </Link>{' '}
                <Key>↵</Key>
              </p>
            )}
          </div>
        ) : (
          <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
        )}
      </InHand>
    </>
  );
}

/** All that the rule did since it was switched on: by that it is measured. */
function OfRule({ rules, ruleId }: { rules: RuleActs['rules']; ruleId: number }) {
  const of = rules.find((one) => one.ruleId === ruleId);
  if (!of || of.cameMicros === null) return null;
  return <Kept of={of} says={`Since it was switched on, the rule acted ${counted(of.terms, 'time')} and`} />;
}

type Told = Pick<RuleAct, 'promisedMicros' | 'cameMicros' | 'days'>;

function Kept({ of: { promisedMicros, cameMicros, days }, says }: { of: Told; says: string }) {
  const money = useMoney();
  if (cameMicros === null) return <p className="text-soft">No day with data has come since.</p>;
  return (
    <p>
      {says} saved <b>{money(cameMicros)}</b> in {counted(days, 'day')}
      {promisedMicros !== null && <>; {money(promisedMicros)} was promised</>}.
    </p>
  );
}
