'use client';

import { SunMoon } from 'lucide-react';

/** Turns from light to dark and back; remembered in this browser. */
export function ThemeSwitch() {
  return (
    <button type="button" aria-label="Light or dark" title="Light or dark" onClick={turnTheme}>
      <SunMoon size={17} aria-hidden />
    </button>
  );
}

export function turnTheme(): void {
  const root = document.documentElement;
  root.dataset.theme = root.dataset.theme === 'dark' ? 'light' : 'dark';
  localStorage.setItem('gatepost-theme', root.dataset.theme);
}
