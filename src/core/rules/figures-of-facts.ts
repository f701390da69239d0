import { FIGURE_NAMES } from '../figures';
import type { Measure } from './rule';

/** How many figures a fact has: those of fact f stand from `WIDTH` · f on. */
export const WIDTH = FIGURE_NAMES.length;

/** Where each figure of a fact stands among them. */
export const AT = Object.fromEntries(FIGURE_NAMES.map((name, i) => [name, i])) as Record<Measure, number>;
