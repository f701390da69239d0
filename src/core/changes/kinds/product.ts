import { placeKey } from '../../gate';
import { describePlace } from '../names';
import { codeKey } from '../product-codes';
import type { ChangeOf } from '../change';
import type { KindRules, RulesFor } from './kind';

type Kind = 'exclude product' | 'readmit product';

const both = {
  key: ({ place, code }) => `product|${placeKey(place)}|${codeKey(code)}`,
  place: ({ place }) => place,
  rowsIn: ({ code }, gate, place) => gate.reachedByCode(code, place),
  restore: ({ code, place }, gate, account) =>
    account.excludes(code, place) ? gate.exclude(code, place) : gate.readmit(code, place),
} satisfies Partial<KindRules<ChangeOf<Kind>>>;

/** The exclusion of a product in a campaign or an ad group (rules 2.5). */
export const productRules: RulesFor<Kind> = {
  'exclude product': {
    ...both,
    does: 'stops',
    inverse: (change) => ({ ...change, kind: 'readmit product' }),
    say: ({ code, place }, names) => `Exclude product ${code} in ${describePlace(place, names)}`,
    stopsIn: ({ place }) => place,
    apply: ({ code, place }, gate) => gate.exclude(code, place),
  },
  'readmit product': {
    ...both,
    does: 'opens',
    inverse: (change) => ({ ...change, kind: 'exclude product' }),
    say: ({ code, place }, names) => `Let product ${code} through again in ${describePlace(place, names)}`,
    apply: ({ code, place }, gate) => gate.readmit(code, place),
  },
};
