import type { PlatformQuery } from '@/contracts/platform';
import { shiftDay } from '@/core';
import { LINES, type Line } from './products';
import type { Draw } from './random';
import {
  addAdGroup,
  addCampaign,
  addKeywordsOf,
  addList,
  addNegative,
  addSeats,
  dateKeywords,
  emptyBuilder,
  type Builder,
} from './structure';

/** Lines that Larkfell sells on the marketplace: things, no courses and no live bees. */
const SOLD: Line[] = LINES.filter((line) => /Hives|Clothing|Tools|Extraction|Health/.test(line.campaign));

/** The marketplace account: for each line an automatic and a manual campaign. */
export function buildMarketplace(draw: Draw, today: string): Builder {
  const builder = emptyBuilder();
  for (const [i, line] of SOLD.entries()) {
    const automatic = `A${i + 1}`;
    const manual = `M${i + 1}`;
    addCampaign(builder, automatic, `${line.campaign} · automatic`, {
      channel: 'marketplace',
      budgetMicros: 30_000_000,
    });
    addCampaign(builder, manual, `${line.campaign} · manual`, {
      channel: 'marketplace',
      budgetMicros: 45_000_000,
    });
    for (const product of line.products) {
      addAdGroup(builder, automatic, line, product, true);
      addKeywordsOf(builder, addAdGroup(builder, manual, line, product), draw);
    }
  }
  const campaigns = builder.structure.campaigns.map((c) => c.id);
  const list = addList(
    builder,
    'Never for us',
    campaigns.filter((id) => id.startsWith('A')),
  );
  for (const text of ['costume', 'movie', 'tattoo', 'wallpaper'])
    addNegative(builder, text, 'phrase', { kind: 'list', id: list }, shiftDay(today, -200));
  dateKeywords(builder, today);
  addNegative(builder, 'salary', 'broad', { kind: 'account', id: null }, shiftDay(today, -30));
  for (const [i, line] of SOLD.entries())
    if (i % 2 === 0)
      addSeats(builder, `M${i + 1}`, line.campaign.split(' · ')[1]!, ['exact', 'phrase', 'broad']);
  return builder;
}

/** Pages of products on which the ads stood: the report names their codes in place of a query. */
export function makeProductCodes(builder: Builder, draw: Draw): PlatformQuery[] {
  const automatic = builder.adGroups.filter((g) => g.automatic);
  return automatic.flatMap(({ id, product }) =>
    Array.from({ length: 9 }, (): PlatformQuery => {
      const ours = draw.chance(0.4);
      const code = `${ours ? 'LK' : draw.pick(['HB', 'DR', 'PW', 'QS'])}-${1000 + Math.floor(draw.next() * 9000)}-${draw.pick(['S', 'M', 'L'])}`;
      return {
        text: code,
        daily: 1.6 * draw.spread(1),
        ctr: 0.022,
        cvr: ours ? product.cvr * 1.2 : product.cvr * 0.2,
        valueMicros: Math.round(product.value * 100) * 10_000,
        unreported: false,
        ...{ cpcMicros: Math.round(product.cpc * 80) * 10_000, means: [], automaticIn: [id] },
      };
    }),
  );
}
