'use client';

import { useState } from 'react';

const WORD = 'min-h-6 border-b border-dashed border-soft bg-transparent font-semibold text-ink';

type FigureProps = {
  label: string;
  value: number;
  /** what can be typed: the least, the most, and decimal places */
  least?: number;
  most: number;
  places?: number;
  onChange: (value: number) => void;
};

/** A number as a word of a sentence; what is no number, or lies outside, becomes the nearest that can be. */
export function Figure({ label, value, least = 0, most, places = 0, onChange }: FigureProps) {
  const [text, setText] = useState(String(value));
  const take = () => {
    const typed = Number(text.replace(',', '.'));
    const wanted = text.trim() === '' || Number.isNaN(typed) ? value : typed;
    const next = Number(Math.min(most, Math.max(least, wanted)).toFixed(places));
    setText(String(next));
    if (next !== value) onChange(next);
  };
  return (
    <input
      inputMode={places > 0 ? 'decimal' : 'numeric'}
      aria-label={label}
      autoComplete="off"
      className={`${WORD} text-center`}
      style={{ width: `${Math.max(2, text.length) + 1}ch` }}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}

type WordsProps = { label: string; words: readonly string[]; onChange: (words: string[]) => void };

/** Words, parted by commas, as words of a sentence. */
export function WordsField({ label, words, onChange }: WordsProps) {
  const [text, setText] = useState(words.join(', '));
  const take = () => {
    const next = [...new Set(text.split(',').map((word) => word.trim()))].filter((word) => word !== '');
    if (next.length === 0) return setText(words.join(', '));
    setText(next.join(', '));
    if (next.join() !== words.join()) onChange(next);
  };
  return (
    <input
      aria-label={label}
      autoComplete="off"
      maxLength={8_000}
      className={`${WORD} w-72 max-w-full`}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}
