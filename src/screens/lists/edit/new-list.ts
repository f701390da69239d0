import * as v from 'valibot';
import type { ListContent } from '@/core';
import type { Option } from '@/ui/select';

/** What a list may hold. */
export const HOLDS: Option<ListContent>[] = [
  { key: 'words', says: 'words' },
  { key: 'placements', says: 'placements' },
];

/** The name of a list, as it is typed. */
export const ListNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'Give the list a name.'),
  v.maxLength(120, 'A name may hold 120 letters.'),
);

export const NewListSchema = v.object({ name: ListNameSchema, holds: v.picklist(['words', 'placements']) });
export const NEW_LIST: v.InferInput<typeof NewListSchema> = { name: '', holds: 'words' };
