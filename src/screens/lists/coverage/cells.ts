import type { ListLine } from '@/contracts/lists';
import type { StateIconKind } from '@/ui/state-icon';

/** What is known of a list on each campaign, by the campaign's index. */
export type CellColumns = {
  hangs: Uint8Array;
  /** 1: to be hung with the tray, 2: to be taken down with it */
  drafted: Uint8Array;
  /** live keywords that it touches, or would */
  hurts: Uint32Array;
  wanted: Uint8Array;
};

export function cellsOf(list: ListLine, campaigns: number): CellColumns {
  const cells: CellColumns = {
    hangs: new Uint8Array(campaigns),
    drafted: new Uint8Array(campaigns),
    hurts: new Uint32Array(campaigns),
    wanted: new Uint8Array(campaigns),
  };
  if (list.hungOn === 'account') cells.hangs.fill(1);
  else for (const c of list.hungOn) cells.hangs[c] = 1;
  for (const { campaign, hang } of list.drafted) {
    if (campaign === null) cells.drafted.fill(hang ? 1 : 2);
    else cells.drafted[campaign] = hang ? 1 : 2;
  }
  list.hurts.campaign.forEach((c, i) => (cells.hurts[c] = list.hurts.keywords[i]!));
  for (const c of list.wanted) cells.wanted[c] = 1;
  return cells;
}

/** Whether the list hangs on a campaign once the tray is sent. */
export function willHang({ hangs, drafted }: CellColumns, campaign: number): boolean {
  return drafted[campaign] === 0 ? hangs[campaign] === 1 : drafted[campaign] === 1;
}

/** A cell of one campaign, or of the campaigns of a folded group. */
export type CellState = {
  icon: StateIconKind;
  /** in words, for those who do not see the icon */
  said: string;
  /** of a group: on how many of its campaigns it hangs */
  share: string | null;
};

export function cellState(cells: CellColumns, campaigns: readonly number[]): CellState {
  const count = (holds: (c: number) => boolean) => campaigns.reduce((sum, c) => sum + Number(holds(c)), 0);
  const hung = count((c) => cells.hangs[c] === 1);
  const drafted = count((c) => cells.drafted[c] !== 0);
  const hurting = count((c) => cells.hangs[c] === 1 && cells.hurts[c]! > 0);
  const warned = count((c) => cells.hangs[c] === 0 && cells.hurts[c]! > 0);
  const share = campaigns.length === 1 ? null : `${count((c) => willHang(cells, c))}/${campaigns.length}`;
  if (drafted > 0) {
    const [first] = campaigns.filter((c) => cells.drafted[c] !== 0);
    return {
      icon: 'drafted',
      said: cells.drafted[first!] === 1 ? 'hangs with the tray' : 'goes with the tray',
      share,
    };
  }
  if (hurting > 0) return { icon: 'hurting', said: 'hung, touches a live keyword', share };
  if (hung > 0) return { icon: 'stopped', said: hung === campaigns.length ? 'hung' : 'hung in part', share };
  if (warned > 0) return { icon: 'warned', said: 'open; hung, it would touch a live keyword', share };
  return { icon: 'open', said: 'open', share };
}
