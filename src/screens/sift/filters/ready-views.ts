import { USUAL, type SiftUrl } from '../sift-url';

/** Filters and sorting that belong together. */
export type ViewOf = Partial<typeof USUAL>;
export type ReadyView = { name: string; says: string; filters: ViewOf };

/** Clicks from which a term without conversion is worth a look, unless a person says otherwise. */
export const MANY_CLICKS = 10;

/** Where the waste is found, in the order in which most of it goes. */
export const READY_VIEWS: readonly ReadyView[] = [
  {
    name: 'Spend without return',
    says: 'no conversion, the most spent first',
    filters: { returns: 'none', sort: 'without' },
  },
  {
    name: 'Many clicks, no conversion',
    says: `at least ${MANY_CLICKS} clicks; choose your own number in the sentence`,
    filters: { returns: 'none', clicks: MANY_CLICKS, sort: 'clicks' },
  },
  {
    name: 'Surely missing the target',
    says: '95 % sure or more by the evidence, surest first',
    filters: { evidence: 'sure', sort: 'evidence' },
  },
  { name: 'Over target', says: 'they return, but cost too much', filters: { returns: 'over', sort: 'cost' } },
  {
    name: 'One click, plainly off',
    says: 'words that no converting term and no keyword holds',
    filters: { trait: 'off', sort: 'cost' },
  },
  {
    name: 'Automatic or broad only',
    says: 'what the loose keywords brought',
    filters: { served: 'loose', returns: 'none' },
  },
  { name: 'New since the last pass', says: 'came with the newest reports', filters: { trait: 'new' } },
  { name: 'Not looked at yet', says: 'in this pass', filters: { trait: 'unseen' } },
  {
    name: 'Naming a location',
    says: 'countries, towns, and words you marked',
    filters: { trait: 'location' },
  },
  { name: 'Product codes', says: 'pages of products, to be excluded as such', filters: { trait: 'code' } },
];

/** The URL with a view in place of the filters that are there; what is not of a view (days, panel) stays. */
export function withView(filters: ViewOf): Partial<SiftUrl> {
  return { ...USUAL, ...filters };
}

/** Whether the URL shows just this view. */
export function showsView(url: SiftUrl, filters: ViewOf): boolean {
  const wanted: Record<string, unknown> = { ...USUAL, ...filters };
  return Object.keys(USUAL).every((name) => name === 'view' || url[name as keyof SiftUrl] === wanted[name]);
}
