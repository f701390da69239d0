import type { ComponentProps, ReactNode } from 'react';

type Props = ComponentProps<'button'> & {
  tone?: 'main' | 'plain' | 'quiet' | 'danger';
  /** the key that does the same */
  hotkey?: string;
  children: ReactNode;
};

const TONES = {
  main: 'bg-pine text-on-pine border-pine font-semibold',
  plain: 'bg-sheet border-line font-semibold hover:border-soft',
  quiet: 'border-transparent text-pine underline-offset-2 hover:underline px-1',
  danger: 'bg-sheet border-rust text-rust font-semibold',
};

export function Button({ tone = 'plain', hotkey, children, className = '', ...rest }: Props) {
  return (
    <button
      type="button"
      className={`inline-flex items-center gap-1.5 rounded border px-2.5 py-1 text-table disabled:opacity-50 ${TONES[tone]} ${className}`}
      {...rest}
    >
      {children}
      {hotkey && <Key>{hotkey}</Key>}
    </button>
  );
}

/** A key of the keyboard. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd aria-hidden className="rounded border border-current px-1 font-sans text-key leading-4">
      {children}
    </kbd>
  );
}
