import { compileAccountGate } from '@/core';
import { derivedFrom } from './derived';
import type { Workbench } from './workbench';

/** The account as the tray leaves it, to be asked about any query in any ad group. */
export const draftGateOf = derivedFrom(({ draft }: Pick<Workbench, 'draft'>) =>
  compileAccountGate(draft.gate.shape()),
);
