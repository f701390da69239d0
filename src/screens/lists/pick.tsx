type Props = {
  name: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
};

/** A choice within a sentence. */
export function Pick({ name, value, options, onChange }: Props) {
  return (
    <select
      aria-label={name}
      className="border-b border-dashed border-ink bg-transparent font-semibold text-ink"
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      {options.map(([key, said]) => (
        <option key={key} value={key}>
          {said}
        </option>
      ))}
    </select>
  );
}
