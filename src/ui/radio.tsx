import type { InputHTMLAttributes } from 'react';

/** One of several; small to see, large enough to hit. */
export function Radio(props: Omit<InputHTMLAttributes<HTMLInputElement>, 'type' | 'className'>) {
  return (
    <input
      type="radio"
      className="grid size-6 shrink-0 appearance-none place-content-center rounded-full before:size-3 before:rounded-full before:border before:border-soft before:content-[''] checked:before:border-4 checked:before:border-pine disabled:opacity-40"
      {...props}
    />
  );
}
