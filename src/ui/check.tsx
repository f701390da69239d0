import type { InputHTMLAttributes } from 'react';

/** On or off; small to see, large enough to hit. */
export function Check(props: Omit<InputHTMLAttributes<HTMLInputElement>, 'type' | 'className'>) {
  return (
    <input
      type="checkbox"
      className="grid size-6 shrink-0 appearance-none place-content-center before:grid before:size-[13px] before:place-content-center before:rounded before:border before:border-soft before:text-tiny before:leading-none before:font-bold before:content-[''] checked:before:border-pine checked:before:bg-pine checked:before:text-on-pine checked:before:content-['✓']"
      {...props}
    />
  );
}
