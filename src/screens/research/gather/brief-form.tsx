'use client';

import { useState } from 'react';
import { BRIEF_TOPICS, BriefSchema, type BriefTopic } from '@/contracts/ideas';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { Fault, FIELD, InlineField, TextField, useValidForm } from '@/ui/form';
import { GatherButton, type WayProps } from './way';

/** A business in its own words; the answer is cleaned like a paste. */
export function BriefForm({ onGather, isGathering }: WayProps) {
  const [round, setRound] = useState(0);
  const { register, handleSubmit, formState, watch, setValue } = useValidForm(BriefSchema, {
    ...{ sells: '', buyers: '', serves: '', doesNot: '', never: '', more: '' },
    ...{ topics: [...BRIEF_TOPICS], most: 200 },
  });
  const topics = watch('topics');
  const { errors } = formState;
  const ask = (next: number) =>
    handleSubmit((brief) => {
      setRound(next);
      onGather({ kind: 'brief', brief: { ...brief, most: Number(brief.most) }, round: next });
    });
  const turn = (topic: BriefTopic) =>
    setValue('topics', topics.includes(topic) ? topics.filter((one) => one !== topic) : [...topics, topic]);
  return (
    <form className="flex flex-col gap-2" onSubmit={(event) => void ask(0)(event)}>
      <TextField label="What it sells" {...register('sells')} fault={errors.sells?.message} />
      <div className="grid grid-cols-2 gap-2">
        <TextField label="To whom" {...register('buyers')} fault={errors.buyers?.message} />
        <TextField label="Places that it serves" {...register('serves')} fault={errors.serves?.message} />
        <TextField label="What it does not do" {...register('doesNot')} fault={errors.doesNot?.message} />
        <TextField
          label="What must never be mentioned"
          {...register('never')}
          fault={errors.never?.message}
        />
      </div>
      <label>
        Whatever else is to be known
        <textarea className={`${FIELD} mt-0.5 h-16 w-full`} {...register('more')} />
      </label>
      <fieldset className="flex flex-wrap gap-x-3">
        <legend className="sr-only">Topics</legend>
        {BRIEF_TOPICS.map((topic) => (
          <label key={topic} className="flex items-center gap-1">
            <Check checked={topics.includes(topic)} onChange={() => turn(topic)} />
            {topic}
          </label>
        ))}
        {errors.topics?.message && <Fault>{errors.topics.message}</Fault>}
      </fieldset>
      <label className="flex items-baseline gap-1.5">
        At most
        <InlineField
          label="Candidates at most"
          type="number"
          min={1}
          max={500}
          className="w-20"
          {...register('most', { valueAsNumber: true })}
          fault={errors.most?.message}
        />
        candidates {errors.most?.message && <Fault>{errors.most.message}</Fault>}
      </label>
      <div className="flex gap-2">
        <GatherButton isGathering={isGathering} />
        <Button disabled={isGathering} onClick={() => void ask(round + 1)()}>
          More of these
        </Button>
      </div>
    </form>
  );
}
