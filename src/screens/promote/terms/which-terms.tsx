'use client';

import { REACHES, type PromotionsView } from '@/contracts/promotion';
import { PILES } from '@/contracts/knots';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { formatCount } from '@/ui/format';
import { optionsIn, Select } from '@/ui/select';
import { Piles } from '@/screens/frame/piles';
import { toQuery, usePromoteUrl } from '../promote-url';

const PILE_NAMES = { open: 'open', left: 'not for this' };
const REACH_NAMES = {
  all: 'whatever they cost',
  within: 'within the target',
  over: 'over the target',
};
const CONVERSIONS = ['1', '2', '3', '5', '10'];
const SEARCHES = ['10', '100', '1000', '10000'];
const ANY = '';

/** Which converting terms are shown; and all of them as a file. */
export function WhichTerms({ view }: { view: PromotionsView | undefined }) {
  const [url, setUrl] = usePromoteUrl();
  const { address } = useRoutes();
  const [days] = useDays();
  const typed = String(url.conversions);
  const conversions = CONVERSIONS.includes(typed) ? CONVERSIONS : [typed, ...CONVERSIONS];
  const searches =
    url.searchesFrom !== null
      ? `from ${url.searchesFrom}`
      : url.searchesTo !== null
        ? `to ${url.searchesTo}`
        : ANY;
  const file = (as: 'csv' | 'xlsx') =>
    address('GET promotion/sheet', { query: { ...toQuery(url), ...inDays(days), as } });
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 border-b border-line px-3 py-1 text-table text-soft">
      <Piles
        piles={PILES}
        names={PILE_NAMES}
        counts={view?.counts}
        value={url.pile}
        onChange={(pile) => void setUrl({ pile })}
      />
      terms with
      <Select
        label="Conversions"
        look="word"
        options={conversions.map((key) => ({
          key,
          says: `${key} ${key === '1' ? 'conversion' : 'conversions'}`,
        }))}
        value={typed}
        onChange={(next) => void setUrl({ conversions: Number(next) })}
      />
      or more,
      <Select
        label="Against the target"
        look="word"
        options={optionsIn(REACHES, REACH_NAMES)}
        value={url.reach}
        onChange={(reach) => void setUrl({ reach })}
      />
      in
      <Select
        label="Group"
        look="word"
        options={[
          { key: ANY, says: 'every group' },
          ...(view?.groups ?? []).map(({ key, name }) => ({ key, says: name })),
        ]}
        value={url.group ?? ANY}
        onChange={(group) => void setUrl({ group: group === ANY ? null : group })}
      />
      served in
      <Select
        label="Campaign"
        look="word"
        options={[
          { key: ANY, says: 'any campaign' },
          ...(view?.campaigns ?? []).map(({ id, name }) => ({ key: id, says: name })),
        ]}
        value={url.campaign ?? ANY}
        onChange={(campaign) => void setUrl({ campaign: campaign === ANY ? null : campaign })}
      />
      <Select
        label="Searches a month"
        look="word"
        options={[
          { key: ANY, says: 'however often searched for' },
          ...SEARCHES.map((n) => ({
            key: `from ${n}`,
            says: `searched ${formatCount(Number(n))} times or more`,
          })),
          ...SEARCHES.map((n) => ({
            key: `to ${n}`,
            says: `searched ${formatCount(Number(n))} times or less`,
          })),
        ]}
        value={searches}
        onChange={(next) => {
          const [way, n] = next.split(' ');
          void setUrl({
            searchesFrom: way === 'from' ? Number(n) : null,
            searchesTo: way === 'to' ? Number(n) : null,
          });
        }}
      />
      <span className="ml-auto flex gap-2">
        All converting terms as
        <a className="text-pine underline" href={file('csv')} download>
          CSV
        </a>
        <a className="text-pine underline" href={file('xlsx')} download>
          XLSX
        </a>
      </span>
    </div>
  );
}
