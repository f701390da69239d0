import { expect, test } from 'vitest';
import { mentionedIn } from './mentions';

const PEOPLE = ['Maren Oakes', 'Tobias Finch', 'Ana Lind', 'Ana Berg', 'Bo', 'Zoë Ålund'].map((name, id) => ({
  ...{ id, name },
}));

test.each([
  ['@Tobias Finch look', ['Tobias Finch']],
  ['@tobias, is this a film?', ['Tobias Finch']],
  ['is it (@Maren)?', ['Maren Oakes']],
  ['@Maren @tobias finch', ['Maren Oakes', 'Tobias Finch']],
  ['@Ana', []],
  ['@Ana Berg.', ['Ana Berg']],
  ['@Anabel', []],
  ['@Bo', ['Bo']],
  ['@Border', []],
  ['mail me at keeper@maren.example', []],
  ['Tobias', []],
  ['@', []],
  ['', []],
  ['@zoë!', ['Zoë Ålund']],
  ['@@tobias', ['Tobias Finch']],
])('%j names %j', (text, names) => expect(mentionedIn(text, PEOPLE).map(({ name }) => name)).toEqual(names));
