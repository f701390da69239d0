import { expect, test } from 'vitest';
import { isTyping } from './typing';

function field(html: string): Element {
  const around = document.createElement('div');
  around.innerHTML = html;
  return around.querySelector('[data-at]')!;
}

test.each([
  '<input data-at>',
  '<input data-at type="search">',
  '<textarea data-at></textarea>',
  '<button data-at role="combobox"></button>',
  '<ul role="listbox"><li data-at></li></ul>',
])('a key belongs to %s', (html) => {
  expect(isTyping(field(html))).toBe(true);
});

test.each([
  '<input data-at type="checkbox">',
  '<input data-at type="radio">',
  '<input data-at type="file">',
  '<button data-at></button>',
  '<div data-at role="grid"></div>',
])('a key that is pressed at %s undoes, jumps and pastes', (html) => {
  expect(isTyping(field(html))).toBe(false);
});
