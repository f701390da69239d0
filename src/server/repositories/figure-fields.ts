import { FIGURE_NAMES } from '@/core';

/** The columns of a fact that hold its figures, in the order of the core. */
export const FIGURE_FIELDS = FIGURE_NAMES.map((name) =>
  name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`),
);
