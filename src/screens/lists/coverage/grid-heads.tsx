import type { Column, ColumnGroup } from './columns';
import { HEAD, LEFT, type InSight } from './grid-sizes';

type HeadsProps = {
  columns: readonly Column[];
  groups: readonly ColumnGroup[];
  /** whether a campaign has any list, by index */
  hasList: readonly boolean[];
  column: number;
  inSight: InSight;
  width: number;
};

/** Names of campaigns, leaning, and under them the groups that fold. */
export function Heads({ columns, groups, hasList, column, inSight, width }: HeadsProps) {
  const startAt = (index: number) => inSight.find((item) => item.index === index);
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="sticky top-0 z-20 flex min-w-full border-b border-line bg-sheet text-small text-soft"
      style={{ width, height: HEAD }}
    >
      <div className="sticky left-0 z-30 flex h-full w-[272px] shrink-0 items-end gap-2 bg-sheet px-4 pb-6">
        <div role="columnheader" className="flex-1">
          list
        </div>
        <div role="columnheader" className="w-[44px] text-right">
          entries
        </div>
        <div role="columnheader" className="w-[56px] text-right">
          hangs on
        </div>
      </div>
      {inSight.map((item) => {
        const { label, campaigns, isFolded, group, key } = columns[item.index]!;
        const bare = campaigns.some((c) => !hasList[c]);
        return (
          <div
            key={key}
            role="columnheader"
            aria-colindex={item.index + 4}
            data-column-head={isFolded ? undefined : item.index}
            data-fold={isFolded ? group : undefined}
            title={isFolded ? `${label}: ${campaigns.length} campaigns; click opens them` : label}
            className="absolute bottom-[24px] h-[106px] cursor-pointer"
            style={{ left: LEFT + item.start, width: item.size }}
          >
            <span
              className={`absolute bottom-0.5 left-3.5 max-w-[118px] origin-bottom-left -rotate-[58deg] truncate whitespace-nowrap ${item.index === column ? 'font-semibold text-ink' : ''} ${bare ? 'text-rust' : ''} ${isFolded ? 'font-semibold' : ''}`}
            >
              {label}
              {isFolded && ` · ${campaigns.length}`}
            </span>
          </div>
        );
      })}
      {groups.map(({ name, first, length, campaigns, isFolded }) => {
        const [from, to] = [
          startAt(first) ?? firstInSight(inSight, first, length),
          lastInSight(inSight, first, length),
        ];
        if (!from || !to) return null;
        return (
          <div
            key={name}
            role="columnheader"
            className="absolute bottom-0 h-[24px] border-l border-line"
            style={{ left: LEFT + from.start, width: to.start + to.size - from.start }}
          >
            <button
              type="button"
              tabIndex={-1}
              data-fold={name}
              title={`${name}: ${campaigns} campaigns; click ${isFolded ? 'opens' : 'folds'} them`}
              className="h-full w-full truncate border-t border-line px-1 text-left text-key hover:bg-raised"
            >
              {isFolded ? '▸' : '▾'} {isFolded ? '' : name}
            </button>
          </div>
        );
      })}
    </div>
  );
}

const inGroup = (index: number, first: number, length: number) => index >= first && index < first + length;
const firstInSight = (inSight: InSight, first: number, length: number) =>
  inSight.find(({ index }) => inGroup(index, first, length));
const lastInSight = (inSight: InSight, first: number, length: number) =>
  inSight.findLast(({ index }) => inGroup(index, first, length));
