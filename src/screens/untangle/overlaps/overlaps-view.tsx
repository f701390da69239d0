'use client';

import type { OverlapLine, OverlapsView as View } from '@/contracts/overlaps';
import { useMoney } from '@/screens/frame/money';
import { optionsOf, Select } from '@/ui/select';
import { DataTable } from '@/ui/table/data-table';
import { useKnots } from '../use-knots';
import { useUntangleUrl } from '../untangle-url';
import { useOverlapColumns } from './overlap-columns';
import { OverlapInHand } from './overlap-in-hand';
import { PileChoice } from '../leaving/pile-choice';
import { Servers } from './servers';
import { useOverlap } from './use-overlap';

const NO_LINES: OverlapLine[] = [];
const keyOf = ({ term }: OverlapLine) => term;
const BETWEEN = optionsOf<'ad groups' | 'campaigns'>(['ad groups', 'campaigns']);
const CLICKS = ['2', '5', '10', '25', '50'] as const;

type Props = { view: View | undefined; isStale: boolean };

/** Search terms that several ad groups serve; below them the ad groups of the one in hand, side by side. */
export function OverlapsView({ view, isStale }: Props) {
  const lines = view?.lines ?? NO_LINES;
  const columns = useOverlapColumns();
  const knots = useKnots('overlaps', columns, lines, { kind: 'overlap', by: 'elsewhere', keyOf });
  const { marked } = knots;
  const overlap = useOverlap(knots.line, marked);
  return (
    <>
      <WhichTerms view={view} />
      <DataTable
        label="Served by several"
        {...knots.table}
        marks={knots.marks}
        onKey={overlap.onKey}
        isStale={isStale}
        saveAs="terms served by several"
        keysHelp="Arrows move, Space marks; digits choose who keeps it, m turns the match type, p the place, Enter puts it in the tray, l leaves it or takes it up again."
        empty={view && <p>No search term is served by more than one, as it is asked.</p>}
      />
      <Servers overlap={overlap} />
      <OverlapInHand overlap={overlap} />
    </>
  );
}

/** Between what, and from how many clicks on; and what it comes to. */
function WhichTerms({ view }: { view: View | undefined }) {
  const [{ between, clicks }, setUrl] = useUntangleUrl();
  const money = useMoney();
  const text = String(clicks);
  const choices = CLICKS.some((one) => one === text) ? CLICKS : [text, ...CLICKS];
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 border-b border-line px-3 py-1 text-table text-soft">
      <PileChoice counts={view?.counts} />
      terms with
      <Select
        label="Clicks"
        look="word"
        options={choices.map((key) => ({ key, says: `${key} clicks` }))}
        value={text}
        onChange={(next) => void setUrl({ clicks: Number(next) })}
      />
      or more, served by several
      <Select
        label="Between"
        look="word"
        options={BETWEEN}
        value={between}
        onChange={(next) => void setUrl({ between: next })}
      />
      {view && view.elsewhereMicros > 0 && (
        <span className="ml-auto">
          {money(view.elsewhereMicros)} was spent where they should not be, in {view.days} days
        </span>
      )}
    </div>
  );
}
