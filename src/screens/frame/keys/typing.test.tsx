import { expect, test } from 'vitest';
import { isTyping } from './typing';

test.each([
  ['<input data-at>', true],
  ['<input data-at type="search">', true],
  ['<textarea data-at></textarea>', true],
  ['<button data-at role="combobox"></button>', true],
  ['<ul role="listbox"><li data-at></li></ul>', true],
  ['<input data-at type="checkbox">', false],
  ['<input data-at type="radio">', false],
  ['<input data-at type="file">', false],
  ['<button data-at></button>', false],
  ['<div data-at role="grid"></div>', false],
])('whether a key belongs to %s: %s', (html, is) => {
  const around = document.createElement('div');
  around.innerHTML = html;
  expect(isTyping(around.querySelector('[data-at]'))).toBe(is);
});
