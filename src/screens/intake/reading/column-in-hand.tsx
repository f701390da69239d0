'use client';

import type { DayOrder, DecimalMark, ReadColumn, ReadDecisions } from '@/core';
import { Radio } from '@/ui/radio';
import { formatCount } from '@/ui/format';

const IN_WORDS: Record<DecimalMark | DayOrder, string> = {
  '.': 'a point before decimals: 1,234.50',
  ',': 'a comma before decimals: 1.234,50',
  'day first': 'day, month, year',
  'month first': 'month, day, year',
};

type Props = {
  column: ReadColumn;
  decisions: ReadDecisions;
  onDecide: (change: ReadDecisions) => void;
  onClose: () => void;
};

/** How the cells of one column are read, what they show of it, and the other way. */
export function ColumnInHand({ column, decisions, onDecide, onClose }: Props) {
  const { shown, decimalMark, index } = column;
  const isDay = column.role === 'day' || column.role === 'end date';
  return (
    <section className="mt-1 border-b border-line pb-2 text-table">
      <p className="text-soft">
        {column.role === null
          ? `Left out: ${column.because}.`
          : `Taken for ${column.role}: ${column.because}.`}
      </p>
      {shown && isDay && (
        <Ways
          name="day order"
          ways={['day first', 'month first']}
          current={
            decisions.dayOrder ??
            ((shown['month first'] ?? 0) > (shown['day first'] ?? 0) ? 'month first' : 'day first')
          }
          shown={shown}
          onPick={(dayOrder) => onDecide({ dayOrder })}
        />
      )}
      {shown && !isDay && (
        <Ways
          name="decimal mark"
          ways={['.', ',']}
          current={decimalMark ?? '.'}
          shown={shown}
          onPick={(mark) => onDecide({ decimalMarks: { ...decisions.decimalMarks, [index]: mark } })}
        />
      )}
      {!shown && column.role !== null && <p>Its cells can be read one way only.</p>}
      <button type="button" className="mt-1 min-h-6 text-pine hover:underline" onClick={onClose}>
        Back to the file
      </button>
    </section>
  );
}

function Ways<Way extends DecimalMark | DayOrder>({
  name,
  ways,
  current,
  shown,
  onPick,
}: {
  name: string;
  ways: readonly Way[];
  current: Way;
  shown: NonNullable<ReadColumn['shown']>;
  onPick: (way: Way) => void;
}) {
  return (
    <fieldset className="mt-1">
      <legend className="sr-only">{name}</legend>
      {ways.map((way) => (
        <label key={way} className="flex items-center gap-1">
          <Radio name={name} checked={way === current} onChange={() => onPick(way)} />
          {IN_WORDS[way]}
          <span className="ml-auto text-soft">{formatCount(shown[way] ?? 0)} cells</span>
        </label>
      ))}
      <p className="text-soft">{formatCount(shown.either ?? 0)} cells could be either.</p>
    </fieldset>
  );
}
