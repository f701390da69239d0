'use client';

import { ENCODINGS, REPORT_KINDS, SEPARATORS, type ReadDecisions, counted } from '@/core';
import type { ReadingAnswer } from '@/contracts/intake';
import { optionsOf, Select } from '@/ui/select';
import { isDecided, withForm } from './reading-state';

const SEPARATOR_NAMES: Record<string, string> = {
  ',': 'commas',
  ';': 'semicolons',
  '\t': 'tabs',
  '|': 'pipes',
};
const ENCODING_NAMES: Record<string, string> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16, low byte first',
  'utf-16be': 'UTF-16, high byte first',
  'windows-1252': 'Windows-1252',
};

type Props = { answer: ReadingAnswer; onDecide: (decisions: ReadDecisions | null) => void };

/** What kind of file it is, and how its text comes apart; each can be corrected. */
export function FormBar({ answer: { reading, decisions, recipe }, onDecide }: Props) {
  const { encoding, separator, headerLine, kind, currency } = reading;
  const decide = (form: Parameters<typeof withForm>[1]) => onDecide(withForm(decisions, form));
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-0.5 border-b border-line bg-paper px-4 py-1 text-table text-soft">
      {reading.columns.length > 0 && (
        <Select
          label="What the file is about"
          value={kind}
          look="word"
          options={optionsOf(REPORT_KINDS)}
          onChange={(picked) => decide({ kind: picked })}
        />
      )}
      {encoding !== null && (
        <Select
          label="Encoding"
          value={encoding}
          options={ENCODINGS.map((e) => ({ key: e as string, says: ENCODING_NAMES[e] ?? e }))}
          look="word"
          onChange={(picked) => decide({ encoding: picked })}
        />
      )}
      {separator !== null && (
        <Select
          label="Separator"
          value={separator}
          options={SEPARATORS.map((s) => ({ key: s as string, says: SEPARATOR_NAMES[s] ?? s }))}
          look="word"
          onChange={(picked) => decide({ separator: picked })}
        />
      )}
      {encoding === null && headerLine !== null && <span>a sheet</span>}
      {headerLine !== null && (
        <label>
          header in line{' '}
          <input
            key={headerLine}
            type="number"
            min={0}
            max={1000}
            className="w-11 border-b border-dashed border-soft bg-transparent text-ink"
            defaultValue={headerLine}
            onBlur={(event) => {
              const line = event.target.valueAsNumber;
              if (line >= 0 && line !== headerLine) decide({ headerLine: line });
            }}
            onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          />
          {headerLine === 0 && ' none: you name the columns'}
          {headerLine > 1 && ` ${counted(headerLine - 1, 'line')} above it set aside`}
        </label>
      )}
      {currency !== null && <span>money in {currency}</span>}
      {recipe && (
        <span role="status">
          read by the recipe <b className="text-ink">{recipe.name}</b>
        </span>
      )}
      {isDecided(decisions) && (
        <button
          type="button"
          className="min-h-6 text-pine hover:underline"
          onClick={() => onDecide(recipe ? {} : null)}
        >
          {recipe ? 'Read without it' : 'Read as found'}
        </button>
      )}
    </div>
  );
}
