'use client';

import { counted } from '@/core';
import type { NeedlessLine, NeedlessView as View } from '@/contracts/untangle';
import { inDays, useDays } from '@/screens/frame/data/days';
import { InHand } from '@/screens/frame/in-hand';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button, Key } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { LeaveButton, LeftOrLeaving } from '../leaving/leave';
import { PileChoice } from '../leaving/pile-choice';
import { useLeaving } from '../leaving/use-leaving';
import { useKnots } from '../use-knots';
import { NEGATIVE_COLUMNS } from '../negative-columns';

const NO_LINES: NeedlessLine[] = [];
const keyOf = ({ key }: NeedlessLine) => key;

/** Negatives that others make needless: all of them can go together, and it says how that was tried. */
export function NeedlessView({ view }: { view: View | undefined }) {
  const { draft } = useTrayActions();
  const lines = view?.lines ?? NO_LINES;
  // What holds as the account stands today goes only where somebody says so (rules 3).
  const lasting = lines.filter(({ isLasting, left }) => isLasting && !left);
  const knots = useKnots('needless', COLUMNS, lines, { kind: 'needless', by: 'where', isDown: false, keyOf });
  const { line } = knots;
  const { marked } = knots;
  const leaving = useLeaving('needless', line && { ...line, says: `“${line.negative.text}”` });
  const [single] = useSingleKeys();
  const [days] = useDays();
  const inHand = marked.length > 0 ? marked : line ? [line] : [];

  async function remove(going: readonly NeedlessLine[]) {
    if (going.length === 0) return;
    await draft(
      going.map(({ key, negative: { text, match, place }, coveredBy }) => ({
        knot: { kind: 'needless' as const, key, ...inDays(days) },
        change: { kind: 'remove negative' as const, text, match, place },
        why: `needless: “${coveredBy.text}” (${coveredBy.match}) in ${coveredBy.placeName} stops the same`,
      })),
      { said: `remove ${counted(going.length, 'needless negative')}` },
    );
    knots.unmark();
  }

  return (
    <>
      {view && (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1 text-table text-soft">
          <PileChoice counts={view.counts} />
          <span>{sayProof(view)}</span>
          <span className="ml-auto">
            <Button disabled={lasting.length === 0} onClick={() => void remove(lasting)}>
              {sayRemoveAll(lasting.length, lines.length)}
            </Button>
          </span>
        </div>
      )}
      <DataTable
        label="Needless"
        {...knots.table}
        marks={knots.marks}
        onKey={(event) => {
          if (event.key === 'Enter') void remove(inHand);
          else if (isPlain(event, single) && event.key === 'l') leaving.turn();
          else return false;
          return true;
        }}
        saveAs="needless negatives"
        keysHelp="Arrows move, Space marks; Enter puts the removal of what is in hand or marked in the tray, l leaves the one in hand or takes it up again."
        empty={view && <p>No negative is made needless by another one.</p>}
      />
      {line && (
        <InHand
          title={marked.length > 0 ? `${formatCount(marked.length)} marked` : line.negative.text}
          actions={
            !leaving.isLeaving && (
              <div className="flex flex-wrap gap-1.5">
                <Button tone="main" onClick={() => void remove(inHand)}>
                  Remove {inHand.length === 1 ? 'it' : formatCount(inHand.length)} <Key>↵</Key>
                </Button>
                {marked.length === 0 && <LeaveButton leaving={leaving} />}
              </div>
            )
          }
        >
          {marked.length === 0 && <LeftOrLeaving leaving={leaving} />}
          {marked.length === 0 && (
            <p className="mt-1 text-table">
              Whatever “{line.negative.text}” ({line.negative.match}) stops in {line.negative.placeName}, “
              {line.coveredBy.text}” ({line.coveredBy.match}) in {line.coveredBy.placeName} stops, too
              {line.isLasting ? ', whatever ad groups are added.' : ', as the account stands today.'}
            </p>
          )}
        </InHand>
      )}
    </>
  );
}

function sayRemoveAll(lasting: number, all: number): string {
  if (lasting === all) return `Remove all ${formatCount(all)}`;
  return lasting === 1 ? 'Remove the one that lasts' : `Remove all ${formatCount(lasting)} that last`;
}

/** What was tried, in a sentence. */
function sayProof({ lines, twins, proof }: View): string {
  const { adGroups, real, generated, differences } = proof;
  const tried = `Tried in ${counted(adGroups, 'ad group')}, by ${counted(real, 'real query', 'real queries')} and ${formatCount(generated)} made ones`;
  const result =
    differences === 0
      ? 'no gate answers otherwise'
      : `${counted(differences, 'gate')} would answer otherwise`;
  const also = twins > 0 ? ` ${counted(twins, 'twin')} in one place stay: a platform takes both away.` : '';
  return `${lines.length === 0 ? 'Nothing to remove.' : `${tried}: ${result}.`}${also}`;
}

const COLUMNS: readonly Column<NeedlessLine>[] = [
  ...NEGATIVE_COLUMNS,
  {
    ...{ id: 'by', name: 'covered by', px: 150, share: 1, isText: true, isSortable: true },
    value: ({ coveredBy }) => `${coveredBy.text} (${coveredBy.match})`,
    cell: ({ coveredBy }) => (
      <>
        {coveredBy.text} <MatchChip match={coveredBy.match} />
      </>
    ),
  },
  {
    ...{ id: 'byWhere', name: 'in', fullName: 'where that stands', px: 130, share: 1, isText: true },
    value: ({ coveredBy }) => coveredBy.placeName,
    cell: ({ coveredBy }) => <span className="text-soft">{coveredBy.placeName}</span>,
  },
  {
    ...{ id: 'lasts', name: 'lasts', px: 60, isText: true, isSortable: true },
    explains: 'Whether it holds whatever ad groups are added, or as the account stands today.',
    value: ({ isLasting }) => (isLasting ? 'yes' : 'today'),
    cell: ({ isLasting }) => (isLasting ? 'yes' : <span className="text-soft">today</span>),
  },
];
