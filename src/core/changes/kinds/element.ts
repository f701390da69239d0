import { formatAmount } from '../../figures';
import type { ChangeOf } from '../change';
import type { KindRules, RulesFor } from './kind';

type Campaign = 'add campaign' | 'remove campaign';
type AdGroup = 'add ad group' | 'remove ad group';
type Keyword = 'add keyword' | 'remove keyword';

const keyOf = (...parts: string[]) => JSON.stringify(parts);
const keyOfCampaign = (name: string) => keyOf('campaign', name);
const keyOfAdGroup = (campaign: string, name: string) => keyOf('ad group', campaign, name);

const campaign = {
  does: 'neither',
  key: ({ name }) => keyOfCampaign(name),
} satisfies Partial<KindRules<ChangeOf<Campaign>>>;

const adGroup = {
  does: 'neither',
  key: ({ campaign: of, name }) => keyOfAdGroup(of, name),
  needs: ({ campaign: of }) => keyOfCampaign(of),
} satisfies Partial<KindRules<ChangeOf<AdGroup>>>;

/** What a keyword is about, by the names of where it stands. */
export const keyOfKeyword = (of: Pick<ChangeOf<Keyword>, 'campaign' | 'adGroup' | 'text' | 'match'>) =>
  keyOf('keyword', of.campaign, of.adGroup, of.text, of.match);

const keyword = {
  does: 'neither',
  key: keyOfKeyword,
  value: ({ bidMicros }) => String(bidMicros),
  needs: ({ campaign: of, adGroup: group }) => keyOfAdGroup(of, group),
} satisfies Partial<KindRules<ChangeOf<Keyword>>>;

/** New campaigns, ad groups and keywords, named as people name them: they have no id yet. They stop no query. */
export const elementRules: RulesFor<Campaign | AdGroup | Keyword> = {
  'add campaign': {
    ...campaign,
    value: ({ budgetMicros }) => String(budgetMicros),
    inverse: (change) => ({ ...change, kind: 'remove campaign' }),
    say: ({ name, budgetMicros }, { currency }) =>
      `Add campaign ${name}, paused, with ${formatAmount(budgetMicros, currency)} a day`,
  },
  'remove campaign': {
    ...campaign,
    value: ({ budgetMicros }) => String(budgetMicros),
    inverse: (change) => ({ ...change, kind: 'add campaign' }),
    say: ({ name }) => `Remove campaign ${name}`,
  },
  'add ad group': {
    ...adGroup,
    inverse: (change) => ({ ...change, kind: 'remove ad group' }),
    say: ({ campaign: of, name }) => `Add ad group ${name} to campaign ${of}`,
  },
  'remove ad group': {
    ...adGroup,
    inverse: (change) => ({ ...change, kind: 'add ad group' }),
    say: ({ campaign: of, name }) => `Remove ad group ${name} from campaign ${of}`,
  },
  'add keyword': {
    ...keyword,
    inverse: (change) => ({ ...change, kind: 'remove keyword' }),
    say: ({ text, match, adGroup: group, campaign: of, bidMicros }, { currency }) =>
      `Add keyword “${text}” (${match}) to ${of} · ${group}, bid ${formatAmount(bidMicros, currency)}`,
  },
  'remove keyword': {
    ...keyword,
    inverse: (change) => ({ ...change, kind: 'add keyword' }),
    say: ({ text, match, adGroup: group, campaign: of }) =>
      `Remove keyword “${text}” (${match}) from ${of} · ${group}`,
  },
};
