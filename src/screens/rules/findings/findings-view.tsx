'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { FINDING_PILES, type Finding, type FindingPile } from '@/contracts/findings';
import type { RuleLine } from '@/contracts/rules';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { useLineTable } from '@/screens/frame/line-table';
import { Piles } from '@/screens/frame/piles';
import { Button } from '@/ui/button';
import { ErrorText } from '@/ui/said';
import { DataTable } from '@/ui/table/data-table';
import { useRulesUrl } from '../rules-url';
import { useFindingColumns } from './finding-columns';
import { FindingInHand } from './finding-in-hand';
import { useFinding } from './use-finding';

const NONE: Finding[] = [];
const keyOf = ({ id }: Finding) => String(id);
const PILE_NAMES: Record<FindingPile, string> = { open: 'open', later: 'later', refused: 'refused' };

/** What rules propose, as it is asked for. */
export function useFindings() {
  const { query } = useRoutes();
  const [days] = useDays();
  const [{ pile }] = useRulesUrl();
  return useQuery({
    ...query('GET rules/findings', { query: { pile, ...inDays(days) } }),
    placeholderData: keepPreviousData,
  });
}

type Props = { asked: ReturnType<typeof useFindings>; rules: readonly RuleLine[] | undefined };

/** What rules propose: each gets a yes, a no with its reason, or waits. */
export function FindingsView({ asked, rules }: Props) {
  const [{ pile }, setUrl] = useRulesUrl();
  const view = asked.data;
  const columns = useFindingColumns();
  const table = useLineTable('findings', columns, view?.lines ?? NONE, {
    ...{ first: { by: 'cost', isDown: true }, over: pile, keyOf },
  });
  const finding = useFinding(table.line, table.marked, pile, table.unmark);
  if (asked.error) return <ErrorText error={asked.error} isWhole />;
  const isAnyOn = rules?.some(({ state }) => state === 'on') ?? true;
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1 border-b border-line px-3 py-1 text-table text-soft">
        <Piles
          piles={FINDING_PILES}
          names={PILE_NAMES}
          counts={view?.counts}
          value={pile}
          onChange={(next) => void setUrl({ pile: next })}
        />
        what the rules propose, by the days that each looks at
      </div>
      <DataTable
        label="Findings"
        {...table.table}
        marks={table.marks}
        onKey={finding.onKey}
        isStale={asked.isPlaceholderData}
        saveAs="findings"
        keysHelp="Arrows move, Space marks; Enter says yes and puts the stop in the tray, x goes to the reason for a no, l looks at it in a week, o opens it again."
        empty={
          view && (
            <p>
              {isAnyOn ? 'Nothing waits for a decision. ' : 'No rule is switched on. '}
              {!isAnyOn && (
                <Button onClick={() => void setUrl({ shown: 'ready' })}>Begin from a ready one</Button>
              )}
            </p>
          )
        }
      />
      <FindingInHand key={`${table.line?.id} ${pile}`} finding={finding} />
    </>
  );
}
