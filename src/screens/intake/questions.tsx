'use client';

import type { Question } from '@/core';
import type { ReadOptionsInput } from '@/contracts/intake';
import { Radio } from '@/ui/radio';

const IN_WORDS: Record<string, string> = {
  '.': 'a point: 1.50',
  ',': 'a comma: 1,50',
  'day first': 'day, month, year',
  'month first': 'month, day, year',
};

type Props = {
  questions: readonly Question[];
  options: ReadOptionsInput;
  onAnswer: (answer: ReadOptionsInput) => void;
};

/** What the file alone can not decide. Asked, never guessed. */
export function Questions({ questions, options, onAnswer }: Props) {
  const answered: { name: string; value: string; key: keyof ReadOptionsInput }[] = [];
  if (options.dayOrder)
    answered.push({ name: 'Days are', value: IN_WORDS[options.dayOrder]!, key: 'dayOrder' });
  if (options.decimalMark)
    answered.push({ name: 'Decimals follow', value: IN_WORDS[options.decimalMark]!, key: 'decimalMark' });
  if (options.day) answered.push({ name: 'All rows belong to', value: options.day, key: 'day' });
  return (
    <div className="text-[13px]">
      {questions.map((q) => (
        <fieldset key={q.code} className="my-2 border-l-[3px] border-timber bg-timber/10 px-2.5 py-1.5">
          <legend className="sr-only">A question about the file</legend>
          <p>{q.text}</p>
          {q.code === 'day' ? (
            <input
              type="date"
              aria-label="Day of all rows"
              className="mt-1 rounded border border-line bg-sheet px-1.5"
              onChange={(e) => e.target.value && onAnswer({ day: e.target.value })}
            />
          ) : (
            q.options.map((option) => (
              <label key={option} className="mt-1 flex items-center gap-1.5">
                <Radio
                  name={q.code}
                  onChange={() =>
                    onAnswer(
                      q.code === 'day order'
                        ? { dayOrder: option as 'day first' }
                        : { decimalMark: option as '.' },
                    )
                  }
                />
                {IN_WORDS[option]}
              </label>
            ))
          )}
        </fieldset>
      ))}
      {answered.map(({ name, value, key }) => (
        <p key={key} className="text-soft">
          {name} <b className="text-ink">{value}</b>.{' '}
          <button
            type="button"
            className="text-pine underline"
            onClick={() => onAnswer({ [key]: undefined })}
          >
            Ask again
          </button>
        </p>
      ))}
    </div>
  );
}
