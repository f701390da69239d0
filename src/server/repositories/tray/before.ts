import type { Figures } from '@/core';

/** What the terms of a change cost in the window before it was sent. */
export type Before = {
  window: { from: string; to: string };
  terms: number;
  figures: Figures;
  /** what it was predicted to bring (rules 13.2) in as many days; changes that were sent before it was kept have none */
  predicted?: Predicted;
};

/** Cost to come of what a change stops beyond those before it, that less what comes back, and its variance by chance; micro-units. */
export type Predicted = { days: number; stoppedMicros: number; netMicros: number; variance: number };
