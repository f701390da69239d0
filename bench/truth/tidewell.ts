import type { PlatformQuery, SeedRequest } from '@/contracts/platform';
import { drawFrom } from '../../demo/random';
import { addCampaign, addKeyword, emptyBuilder, type Builder } from '../../demo/structure';

/**
 * A second made-up advertiser, of another trade: Tidewell mends and fits out boats in a harbour town. Services rather
 * than goods, so that rates are higher and clicks dearer; 200 ad groups, each a job on a kind of boat.
 */

const JOBS = [
  ...['hull painting', 'keel repair', 'rigging check', 'sail repair', 'engine service', 'propeller repair'],
  ...[
    'deck cleaning',
    'winter storage',
    'mooring',
    'antifouling',
    'upholstery',
    'electrics',
    'fibreglass repair',
  ],
  ...[
    'survey',
    'crane lifting',
    'mast stepping',
    'varnishing',
    'leak repair',
    'canvas covers',
    'battery fitting',
  ],
];
const BOATS = [
  ...[
    'yacht',
    'dinghy',
    'narrowboat',
    'catamaran',
    'motor boat',
    'fishing boat',
    'rib',
    'trimaran',
    'sailing boat',
  ],
  'houseboat',
];

/** Why people ask: a factor on the ad group's rate, impressions a day, and how they say it. */
type Reason = { factor: number; daily: number; ctr: number; says: string };
const REASONS: Reason[] = [
  {
    factor: 1,
    daily: 2.2,
    ctr: 0.06,
    says: '{p}; {p} near me; {p} cost; {p} quote; book {p}; {p} company; local {p}; {p} yard; {p} service; mobile {p}; {p} prices; affordable {p}; emergency {p}; {p} specialist',
  },
  { factor: 1.5, daily: 0.5, ctr: 0.07, says: '{p} free quote; {p} this week; {p} deposit; {p} booking' },
  {
    factor: 0.6,
    daily: 0.8,
    ctr: 0.05,
    says: '{p} reviews; best {p}; {p} or replace; {p} comparison; is {p} worth it',
  },
  { factor: 0.3, daily: 0.8, ctr: 0.05, says: '{p} materials; {p} supplies; {p} tools; {p} kit' },
  {
    factor: 0.05,
    daily: 1.3,
    ctr: 0.04,
    says: 'how to do {p}; {p} tutorial; {p} yourself; {p} step by step; learn {p}; {p} manual; {p} video',
  },
  {
    factor: 0,
    daily: 0.9,
    ctr: 0.03,
    says: '{p} vacancies; {p} apprenticeship; {p} wages; {p} trainee; {p} cv',
  },
  {
    factor: 0,
    daily: 0.7,
    ctr: 0.035,
    says: '{p} model kit; {p} toy; {p} miniature; {p} papercraft; {p} scale model',
  },
  {
    factor: 0.02,
    daily: 0.8,
    ctr: 0.045,
    says: '{p} insurance claim; {p} loan; {p} grant; {p} licence; {p} regulations',
  },
  {
    factor: 0,
    daily: 0.8,
    ctr: 0.03,
    says: '{p} simulator; {p} mod; {p} anime; {p} quotes funny; {p} sticker; {p} meaning dream',
  },
  {
    factor: 0.1,
    daily: 0.7,
    ctr: 0.05,
    says: 'brackmoor {p}; {p} brackmoor; saltney brothers {p}; {p} in kelverton; fennick marine {p}',
  },
];

/** @param seed other seeds give other rates, volumes and traffic */
export function makeTidewell(seed: number): SeedRequest {
  const draw = drawFrom((0.377 + seed * 0.131) % 1);
  const builder = emptyBuilder();
  const queries = new Map<string, PlatformQuery>();
  for (const [j, job] of JOBS.entries()) {
    addCampaign(builder, `C${j + 1}`, `Yard · ${job}`);
    for (const boat of BOATS) {
      const product = `${boat} ${job}`;
      addGroup(builder, `C${j + 1}`, product);
      const [cvr, cpc, popularity] = [
        0.06 * draw.spread(0.4),
        2.4 * draw.spread(0.3),
        0.5 * draw.spread(0.6),
      ];
      for (const reason of REASONS)
        for (const saying of reason.says.split('; ')) {
          if (!draw.chance(0.6)) continue;
          const text = saying.replace('{p}', product);
          queries.set(text, {
            ...{ text, daily: 0.12 * reason.daily * popularity * draw.spread(1.6) },
            ...{ ctr: Math.min(0.5, reason.ctr * draw.spread(0.25)), unreported: false },
            ...{ cvr: Math.min(0.6, cvr * reason.factor * draw.spread(0.2)), valueMicros: 90_000_000 },
            cpcMicros: Math.round(cpc * draw.spread(0.15) * 100) * 10_000,
            ...{ means: [], automaticIn: [] },
          });
        }
    }
  }
  return {
    account: {
      ...{ id: 'tidewell', name: 'Tidewell', currency: 'EUR', seed: 17 + seed },
      ...{ firstDay: '2026-05-01', today: '2026-11-22' },
    },
    ...{ structure: builder.structure, queries: [...queries.values()] },
  };
}

/** What a booked job may cost, micro-units. */
export const TIDEWELL_TARGET = 48_000_000;

function addGroup(builder: Builder, campaignId: string, product: string): void {
  const id = `G${builder.structure.adGroups.length + 1}`;
  builder.structure.adGroups.push({ id, campaignId, name: product, status: 'live' });
  addKeyword(builder, id, product, 'phrase', 2.4);
}
