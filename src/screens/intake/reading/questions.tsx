'use client';

import type { DayOrder, DecimalMark, Period, Question, ReadDecisions, Reading } from '@/core';
import { Button } from '@/ui/button';
import { formatDays } from '@/ui/format';
import { Radio } from '@/ui/radio';
import { RangeForm } from '@/ui/range-form';

const IN_WORDS: Record<DecimalMark | DayOrder, string> = {
  '.': 'a point: 1.50',
  ',': 'a comma: 1,50',
  'day first': 'day, month, year',
  'month first': 'month, day, year',
};

type Props = { reading: Reading; decisions: ReadDecisions; onDecide: (change: ReadDecisions) => void };

/** What the file alone can not decide. Asked, never guessed. */
export function Questions({ reading: { questions }, decisions, onDecide }: Props) {
  const answered: { name: string; value: string; change: ReadDecisions }[] = [];
  const { dayOrder, decimalMark, period } = decisions;
  if (dayOrder)
    answered.push({ name: 'Days are', value: IN_WORDS[dayOrder], change: { dayOrder: undefined } });
  if (decimalMark)
    answered.push({
      name: 'Decimals follow',
      value: IN_WORDS[decimalMark],
      change: { decimalMark: undefined },
    });
  if (period)
    answered.push({
      name: 'All rows belong to',
      value: formatDays(period, true),
      change: { period: undefined },
    });
  return (
    <div className="text-table">
      {questions.map((question) => (
        <fieldset
          key={question.code}
          className="my-2 border-l-[3px] border-timber bg-timber/10 px-2.5 py-1.5"
        >
          <legend className="sr-only">A question about the file</legend>
          <p>{question.text}</p>
          <Answers question={question} decisions={decisions} onDecide={onDecide} />
        </fieldset>
      ))}
      {answered.map(({ name, value, change }) => (
        <p key={name} className="text-soft">
          {name} <b className="text-ink">{value}</b>.{' '}
          <button type="button" className="min-h-6 text-pine underline" onClick={() => onDecide(change)}>
            Ask again
          </button>
        </p>
      ))}
    </div>
  );
}

function Answers({
  question,
  decisions,
  onDecide,
}: { question: Question } & Pick<Props, 'decisions' | 'onDecide'>) {
  switch (question.code) {
    case 'period':
      return <PeriodForm suggested={question.suggested} onPick={(period) => onDecide({ period })} />;
    case 'day order':
      return <Choices question={question} onPick={(dayOrder) => onDecide({ dayOrder })} />;
    case 'decimal mark':
      return <Choices question={question} onPick={(decimalMark) => onDecide({ decimalMark })} />;
    case 'encoding':
      return <Choices question={question} onPick={(encoding) => onDecide({ encoding })} />;
    case 'currency column': {
      const say = (role: 'currency' | null) =>
        onDecide({ roles: { ...decisions.roles, [question.index]: role } });
      return (
        <div className="mt-1 flex gap-1.5">
          <Button onClick={() => say('currency')}>Yes</Button>
          <Button onClick={() => say(null)}>No, leave it out</Button>
        </div>
      );
    }
  }
}

function Choices<Answer extends string>({
  question,
  onPick,
}: {
  question: { code: string; options: Answer[] };
  onPick: (answer: Answer) => void;
}) {
  return question.options.map((option) => (
    <label key={option} className="mt-1 flex items-center gap-1.5">
      <Radio name={question.code} onChange={() => onPick(option)} />
      {IN_WORDS[option as DayOrder] ?? option}
    </label>
  ));
}

/** First and last day of all rows; what stands above the table is filled in, and waits to be confirmed. */
function PeriodForm({ suggested, onPick }: { suggested: Period | null; onPick: (period: Period) => void }) {
  return (
    <div className="mt-1">
      {suggested && <p className="text-soft">Above the table stands {formatDays(suggested, true)}.</p>}
      <RangeForm
        names={['First day', 'Last day']}
        range={suggested ?? { from: '', to: '' }}
        takes="These days"
        onTake={onPick}
      />
    </div>
  );
}
