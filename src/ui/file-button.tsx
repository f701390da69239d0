'use client';

import { useRef } from 'react';
import { Button } from './button';

type Props = {
  /** what the button says */
  says: string;
  /** the field, for those who hear it */
  label: string;
  /** endings of the files that can be read, as in `.csv,.xlsx` */
  accept: string;
  onPick: (file: File) => void;
};

/** Lets a person pick one file; the same file can be picked again. */
export function FileButton({ says, label, accept, onPick }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button onClick={() => input.current?.click()}>{says}</Button>
      <input
        ref={input}
        type="file"
        className="hidden"
        aria-label={label}
        accept={accept}
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file) onPick(file);
          target.value = '';
        }}
      />
    </>
  );
}
