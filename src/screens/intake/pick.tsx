'use client';

type Props = {
  label: string;
  value: string;
  options: readonly { value: string; text: string }[];
  onPick: (value: string) => void;
  isQuiet?: boolean;
};

/** A choice that reads as a word of the sentence it stands in. */
export function Pick({ label, value, options, onPick, isQuiet = false }: Props) {
  return (
    <select
      aria-label={label}
      className={`min-h-6 max-w-full border-b border-dashed border-soft bg-transparent ${isQuiet ? 'text-soft' : 'font-semibold text-pine'}`}
      value={value}
      onChange={(event) => onPick(event.target.value)}
    >
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.text}
        </option>
      ))}
    </select>
  );
}
