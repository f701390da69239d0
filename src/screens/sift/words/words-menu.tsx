'use client';

import type { ThemeLine, WordLine } from '@/contracts/sift';
import { useUnits } from '@/screens/frame/money';
import { SaveMenu } from '@/ui/table/save-menu';

/** The runs of words as a file or as cells. */
export function WordsMenu({ lines }: { lines: readonly WordLine[] }) {
  const units = useUnits();
  return (
    <SaveMenu
      name="runs of words"
      cells={() => ({
        header: ['words', 'terms', 'cost', 'no return', 'conversions', 'sure at fault', 'would have brought'],
        rows: lines.map((line) => [
          ...[line.ngram, line.terms, units(line.costMicros), units(line.withoutReturnMicros)],
          ...[line.conversions, line.fault?.probability ?? null, line.fault?.expected ?? null],
        ]),
      })}
    />
  );
}

/** The themes as a file or as cells. */
export function ThemesMenu({ lines }: { lines: readonly ThemeLine[] }) {
  const units = useUnits();
  return (
    <SaveMenu
      name="themes"
      cells={() => ({
        header: ['words', 'terms', 'clicks', 'cost', 'sure at fault'],
        rows: lines.map(({ words, terms, clicks, costMicros, fault }) => [
          ...[words.join(', '), terms, clicks, units(costMicros), fault?.probability ?? null],
        ]),
      })}
    />
  );
}
