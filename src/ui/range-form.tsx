'use client';

import * as v from 'valibot';
import { Button } from './button';
import { Fault, firstFault, InlineField, useValidForm } from './form';

type Range = { from: string; to: string };

type Props = {
  /** what the two days are called, for those who hear it */
  names: readonly [first: string, last: string];
  /** what stands in the fields at first; empty for nothing */
  range: Range;
  /** the days of which there is data */
  first?: string | undefined;
  last?: string | undefined;
  /** what is wrong with a range that ends no sooner than it begins */
  faultOf?: (range: Range) => string | undefined;
  takes: string;
  onTake: (range: Range) => void;
};

const day = v.pipe(v.string(), v.isoDate('Give both days.'));

/** Two days, and what lies between them. */
export function RangeForm({ names, range, first, last, faultOf, takes, onTake }: Props) {
  const schema = v.pipe(
    v.object({ from: day, to: day }),
    v.rawCheck(({ dataset, addIssue }) => {
      if (!dataset.typed) return;
      const { from, to } = dataset.value;
      const message = from > to ? 'The last day comes before the first.' : faultOf?.(dataset.value);
      if (message !== undefined) addIssue({ message });
    }),
  );
  const { register, handleSubmit, formState } = useValidForm<Range>(schema, range);
  const fault = firstFault(formState.errors);
  return (
    <form noValidate className="mt-1" onSubmit={(event) => void handleSubmit(onTake)(event)}>
      <div className="flex flex-wrap items-center gap-1">
        {(['from', 'to'] as const).map((name, i) => (
          <InlineField
            key={name}
            type="date"
            label={names[i]!}
            min={first}
            max={last}
            fault={fault}
            {...register(name)}
          />
        ))}
        <Button type="submit">{takes}</Button>
      </div>
      {fault !== undefined && <Fault>{fault}</Fault>}
    </form>
  );
}
