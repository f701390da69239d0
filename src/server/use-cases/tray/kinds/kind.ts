import type { Change, ChangeKind, ChangeOf, ElementRow, SheetCells } from '@/core';
import type { PlatformChange, StructureAnswer } from '@/contracts/platform';
import type { ChangeState } from '../../../repositories/tray/changes';
import type { ElementStates } from '../../../repositories/structure/outside-changes';
import type { GoneElements } from '../../../repositories/structure/structure-file';
import type { Mirror } from '../../../repositories/structure/structure';
import type { Deps } from '../../deps';
import type { KnownList } from '../../lists/known-lists';
import type { Open } from '../../open-workbench';

/** Everything that the server must know of a kind of change, from the draft to what a structure file shows of it. */
export type KindWork<C extends Change> = {
  /** Why the change cannot be asked of the platform at all. @param list the list that it needs, which is there */
  refuse?(change: C, open: Open, list: KnownList | undefined): string | undefined;
  /** Why the change would change nothing, against the account as the draft leaves it. */
  isSoAlready?(change: C, open: Open): string | undefined;
  /** Why the change can not be sent any more: what it starts from is another by now. */
  refuseToSend?(change: C, open: Open): string | undefined;
  /** What a person reads when the tray holds another change of the same key. */
  sameInTray?: string;
  /** The change as the platform is asked for it. */
  translate(change: C, ids: PlatformIds): PlatformChange;
  /** What the read-back finds of the change: there, missing, or something else in its stead. */
  find(change: C, mirror: Mirror): Found;
  /** What others did of this kind on the platform, outside lists; a kind and its opposite answer once. */
  findOutside?(answer: StructureAnswer, before: ElementStates, after: ElementStates): Change[];
  /** The change as a row of the sheet that is handed over, and what the element is once it is carried out. */
  sheet: {
    task: string;
    status: 'live' | 'paused' | 'removed';
    cells(change: C, open: Open): SheetCells;
  };
  /** The kind of row by which a structure file shows the change; null where no row does. */
  shownBy(change: C): ElementRow['element'] | null;
  /** What leaves the mirror when the change was said to be done, and a structure file does not name it any more. */
  dropUnnamed?(change: C, gone: GoneElements, mirror: Mirror): void;
  /** What is settled besides when a sent change is taken back. */
  afterUndo?(change: C, deps: Deps, slug: string, personId: number): Promise<void>;
};

export type Found = Extract<ChangeState, 'there' | 'missing' | 'different'>;

/** Ids of elements as the platform knows them. */
export type PlatformIds = {
  campaign(id: string): string;
  adGroup(id: string): string;
  keyword(id: string): string;
  /** of the list that the change needs; `key:` and the key of the change that makes it, where it is not made yet */
  list: string | undefined;
};

/** The work of some kinds, each under its name. */
export type WorkFor<K extends ChangeKind> = { [Kind in K]: KindWork<ChangeOf<Kind>> };

/** There or missing. */
export function isFound(is: boolean): Found {
  return is ? 'there' : 'missing';
}
