import type { Structure } from '@/contracts/platform';
import { shiftDay } from '@/core';
import { LINES, type Line, type Product } from './products';
import type { Draw } from './random';

export type Keyword = Structure['keywords'][number];
export type DemoAdGroup = {
  id: string;
  campaignId: string;
  line: Line;
  product: Product;
  automatic: boolean;
};

/** A structure in the making, with ids that say what they are. */
export type Builder = { structure: Structure; adGroups: DemoAdGroup[] };

export function emptyBuilder(): Builder {
  return {
    structure: {
      campaigns: [],
      adGroups: [],
      keywords: [],
      lists: [],
      hangings: [],
      negatives: [],
      exclusions: [],
      placements: [],
    },
    adGroups: [],
  };
}

export function addCampaign(
  { structure }: Builder,
  id: string,
  name: string,
  over: Partial<Structure['campaigns'][number]> = {},
): void {
  structure.campaigns.push({
    ...{
      id,
      name,
      status: 'live',
      channel: 'search',
      budgetMicros: 60_000_000,
      sharedBudget: null,
      priority: null,
      endDate: null,
    },
    ...{ location: [], audience: [], device: [], language: ['en'], labels: labelsOf(name) },
    ...over,
  });
}

function labelsOf(name: string): string[] {
  if (name.startsWith('Brand')) return ['brand'];
  return /Queens|Courses|sale/.test(name) ? ['seasonal'] : ['all year'];
}

export function addAdGroup(
  builder: Builder,
  campaignId: string,
  line: Line,
  product: Product,
  automatic = false,
): DemoAdGroup {
  const id = `G${builder.structure.adGroups.length + 1}`;
  const name = automatic ? `${product.name} · automatic` : product.name;
  builder.structure.adGroups.push({ id, campaignId, name, status: 'live' });
  const adGroup = { id, campaignId, line, product, automatic };
  builder.adGroups.push(adGroup);
  return adGroup;
}

export function addKeyword(
  { structure }: Builder,
  adGroupId: string,
  text: string,
  match: Keyword['match'],
  cpc: number,
  status: Keyword['status'] = 'live',
): void {
  const id = `K${structure.keywords.length + 1}`;
  structure.keywords.push({
    id,
    adGroupId,
    text,
    match,
    status,
    bidMicros: Math.round(cpc * 1.4 * 100) * 10_000,
    changedOn: null,
  });
}

export function addNegative(
  { structure }: Builder,
  text: string,
  match: 'broad' | 'phrase' | 'exact',
  place: Structure['negatives'][number]['place'],
  createdAt: string,
): void {
  const id = `E${structure.negatives.length + 1}`;
  structure.negatives.push({ id, text, match, place, createdAt: `${createdAt}T09:00:00Z`, status: 'live' });
}

/** @param since the day from which it hangs on a campaign; null: as long as the platform remembers */
export function addList(
  { structure }: Builder,
  name: string,
  campaignIds: readonly string[],
  since: (campaignId: string) => string | null = () => null,
  holds: 'words' | 'placements' = 'words',
): string {
  const id = `S${structure.lists.length + 1}`;
  structure.lists.push({ id, name, status: 'live', holds });
  for (const campaignId of campaignIds)
    structure.hangings.push({ listId: id, campaignId, status: 'live', since: since(campaignId) });
  return id;
}

/** Keywords of a product: its words in three match types, and some with what buyers add. */
export function addKeywordsOf(builder: Builder, adGroup: DemoAdGroup, draw: Draw): void {
  const { product, id } = adGroup;
  for (const [i, text] of product.words.entries()) {
    addKeyword(builder, id, text, 'broad', product.cpc);
    addKeyword(builder, id, text, 'phrase', product.cpc * 1.1);
    if (i === 0 || draw.chance(0.5)) addKeyword(builder, id, text, 'exact', product.cpc * 1.2);
  }
  const [main] = product.words as [string];
  for (const text of [`buy ${main}`, `${main} for sale`, `best ${main}`, `cheap ${main}`]) {
    if (draw.chance(0.75)) addKeyword(builder, id, text, draw.pick(['phrase', 'exact']), product.cpc * 1.15);
  }
}

/** Most keywords have stood for long as they are; some were changed within the window. */
export function dateKeywords({ structure }: Builder, today: string): void {
  for (const [i, keyword] of structure.keywords.entries())
    keyword.changedOn = shiftDay(today, i % 5 === 2 ? -(5 + (i % 17)) : -(70 + ((i * 37) % 400)));
}

/** Ad groups that were made to hold what is promoted, and hold nothing yet. */
export function addSeats(
  { structure }: Builder,
  campaignId: string,
  name: string,
  matches: readonly ('exact' | 'phrase' | 'broad')[],
): void {
  for (const match of matches)
    structure.adGroups.push({
      ...{ id: `G${structure.adGroups.length + 1}`, campaignId },
      ...{ name: `${name} ${match}`, status: 'live' },
    });
}

/** Budgets of campaigns that have others than most; that of Health is nearly spent. */
const BUDGETS: Partial<Record<string, number>> = { 'Brand · All': 20_000_000, 'Health · Varroa': 22_000_000 };

/** The web search account, with its shared lists and the faults that years have left. */
export function buildWebSearch(draw: Draw, today: string): Builder {
  const builder = emptyBuilder();
  for (const [i, line] of LINES.entries()) {
    const id = `C${i + 1}`;
    addCampaign(builder, id, line.campaign, {
      sharedBudget: line.budget,
      budgetMicros: BUDGETS[line.campaign] ?? 80_000_000,
      // The north has a campaign of its own.
      location: i === 0 ? ['GB-SOUTH', 'GB-WEST'] : [],
    });
    for (const product of line.products) addKeywordsOf(builder, addAdGroup(builder, id, line, product), draw);
  }
  // A campaign for one region only: its keywords are deliberate doubles.
  addCampaign(builder, 'C13', 'Hives · Starter North', { location: ['GB-NORTH'], budgetMicros: 15_000_000 });
  for (const product of LINES[0]!.products.slice(0, 3))
    addKeywordsOf(builder, addAdGroup(builder, 'C13', LINES[0]!, product), draw);
  addCampaign(builder, 'C14', 'Spring sale 2025', { status: 'paused', endDate: '2025-05-31' });
  addKeywordsOf(builder, addAdGroup(builder, 'C14', LINES[2]!, LINES[2]!.products[0]!), draw);
  addCampaign(builder, 'C15', 'Display · Gardens', { channel: 'display', budgetMicros: 10_000_000 });
  addSharedLists(builder, today);
  addPlacementLists(builder, today);
  addFaults(builder, today);
  dateKeywords(builder, today);
  addSeats(builder, 'C1', 'Starter', ['exact', 'phrase', 'broad']);
  addSeats(builder, 'C9', 'Varroa', ['exact', 'phrase', 'broad']);
  addSeats(builder, 'C6', 'Manual', ['exact', 'phrase']);
  addSeats(builder, 'C3', 'Suits', ['exact']);
  return builder;
}

/** What was stopped long ago: a part of each intent, so that much is left to find. */
const LISTS: {
  name: string;
  on: (campaign: string) => boolean;
  entries: string[];
  /** days ago that it was hung; long ago where nothing is said */
  hung?: (campaign: string) => number | null;
}[] = [
  {
    name: 'Leisure & media',
    on: (c) => !c.startsWith('Brand'),
    entries: ['lyrics', 'cartoon', 'meme', 'emoji', 'episode', '"fancy dress"', 'cosplay', 'wallpaper'],
  },
  {
    name: 'Work & careers',
    on: (c) => !c.startsWith('Brand'),
    entries: ['vacancy', 'internship', 'hiring', 'career', 'training job', 'certificate'],
    hung: () => 41,
  },
  {
    name: 'Free & do-it-yourself',
    on: (c) => !/Top bar|Brand/.test(c),
    entries: ['blueprint', 'homemade', '"make your own"', 'pallets', '"free plans"'],
    hung: (c) => (c.startsWith('Hives') ? null : 47),
  },
  {
    name: 'Second hand',
    on: (c) => /Hives|Tools|Extraction/.test(c),
    entries: ['refurbished', 'auction', 'swap'],
    hung: () => 52,
  },
  {
    name: 'Places not served',
    on: () => true,
    entries: ['canada', 'texas', 'dubai', '"isle of man"', 'fiji', 'greenland', 'falkland'],
  },
  { name: 'Other makers', on: (c) => /Hives|Clothing|Tools/.test(c), entries: ['pellwright', 'marrowdale'] },
  {
    name: 'Pests & pesticides',
    on: (c) => /Starter|Live/.test(c),
    entries: ['exterminator', '"get rid of"', 'spray'],
  },
  {
    name: 'Children',
    on: (c) => /Starter|Suits|Courses|Kids/.test(c),
    entries: ['toy', 'toddler', '"colouring page"'],
  },
  {
    name: 'Recipes',
    on: (c) => /Manual|Electric|Queens/.test(c),
    entries: ['recipe', 'cocktail', 'calories'],
    hung: () => 38,
  },
  { name: 'Pictures', on: (c) => /Hives/.test(c), entries: ['clipart', 'svg', '[bee hive png]'] },
  {
    name: 'Old imports 2023',
    on: () => false,
    entries: ['tattoo', 'clipart', 'logo', 'blueprints', 'ringtone', 'horoscope'],
  },
];

function addSharedLists(builder: Builder, today: string) {
  const long = shiftDay(today, -420);
  const nameOf = new Map(builder.structure.campaigns.map((c) => [c.id, c.name]));
  for (const { name, on, entries, hung } of LISTS) {
    const hungOn = builder.structure.campaigns.filter((c) => c.channel === 'search' && on(c.name));
    const since = (campaignId: string) => {
      const daysAgo = hung?.(nameOf.get(campaignId)!) ?? null;
      return daysAgo === null ? null : shiftDay(today, -daysAgo);
    };
    const id = addList(
      builder,
      name,
      hungOn.map((c) => c.id),
      since,
    );
    for (const entry of entries) {
      const match = entry.startsWith('[') ? 'exact' : entry.startsWith('"') ? 'phrase' : 'broad';
      addNegative(builder, entry.replace(/["[\]]/g, ''), match, { kind: 'list', id }, long);
    }
  }
}

const SITES = [
  'hexagon-games',
  'honey-cartoons',
  'buzz-videos',
  'tap-the-bee',
  'ringtone-meadow',
  'quizcomb',
];

/** Where the display campaign is not to be seen, and a list that nobody ever hung. */
function addPlacementLists({ structure }: Builder, today: string) {
  const builder = { structure, adGroups: [] };
  const add = (listId: string, address: string) =>
    structure.placements.push({
      ...{ id: `P${structure.placements.length + 1}`, address, listId, status: 'live' },
      createdAt: `${shiftDay(today, -200)}T09:00:00Z`,
    });
  const games = addList(builder, 'Games & cartoons', ['C15'], () => shiftDay(today, -120), 'placements');
  for (const site of SITES) for (const end of ['example', 'test']) add(games, `${site}.${end}`);
  const apps = addList(builder, 'Sites & apps 2023', [], () => null, 'placements');
  for (const site of SITES) for (let n = 1; n <= 12; n++) add(apps, `apps.${site}.example/app-${n}`);
}

function addFaults(builder: Builder, today: string) {
  const [old, newer, recent] = [shiftDay(today, -700), shiftDay(today, -300), shiftDay(today, -24)];
  const account = { kind: 'account', id: null } as const;
  const campaign = (id: string) => ({ kind: 'campaign', id }) as const;
  // twins and needless ones
  addNegative(builder, 'lyrics', 'phrase', campaign('C1'), newer);
  addNegative(builder, 'song lyrics', 'phrase', campaign('C1'), newer);
  addNegative(builder, 'bee hive cartoon', 'exact', { kind: 'adGroup', id: 'G1' }, newer);
  addNegative(builder, 'canada', 'phrase', campaign('C3'), old);
  addNegative(builder, 'porn', 'broad', account, old);
  addNegative(builder, 'porn', 'phrase', account, newer);
  // stops nothing, since nobody writes it like that
  addNegative(builder, 'haloween', 'phrase', campaign('C3'), old);
  // done one by one, campaign after campaign
  for (const text of ['jigsaw', 'crochet', 'stencil', 'sewing pattern', 'cross stitch'])
    for (const id of ['C1', 'C2', 'C3', 'C4', 'C5', 'C9'].slice(0, text === 'stencil' ? 5 : 6))
      addNegative(builder, text, 'phrase', campaign(id), newer);
  // shut out what is being paid for
  addNegative(builder, 'certificate', 'broad', campaign('C10'), old);
  addNegative(builder, 'hex', 'phrase', campaign('C6'), newer);
  addNegative(builder, 'bee jacket', 'exact', { kind: 'adGroup', id: 'G15' }, newer);
  // stopped lately: the days before still show it
  addNegative(builder, 'documentary', 'broad', account, recent);
  addNegative(builder, 'game', 'broad', campaign('C1'), recent);
  addNegative(builder, 'sting treatment', 'phrase', campaign('C8'), recent);
  // duplicates in overlapping campaigns
  addKeyword(builder, 'G8', 'bee hive', 'broad', 0.9);
  addKeyword(builder, 'G9', 'hive bars', 'phrase', 0.45);
  addKeyword(builder, 'G3', 'brood box', 'phrase', 0.66);
  addKeyword(builder, 'G21', 'kids bee suit', 'phrase', 0.8);
}
