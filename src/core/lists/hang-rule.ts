/** A standing wish: the list is to hang on every campaign for which all of this holds. What is not said holds for any. */
export type HangRule = {
  /** texts that a name must hold, as they are written or in other case; all of them */
  nameHolds?: string[];
  /** texts that no name may hold */
  nameLacks?: string[];
  statuses?: string[];
  channels?: string[];
  /** one of them is enough */
  labels?: string[];
};

type RuledCampaign = { name: string; status: string; channel: string | null; labels: readonly string[] };

/**
 * Whether a rule is about a campaign.
 * @example isRuled({ nameHolds: ['hives'] }, { name: 'Hives · Starter', status: 'live', channel: 'search', labels: [] }) // true
 */
export function isRuled(rule: HangRule, campaign: RuledCampaign): boolean {
  const { nameHolds = [], nameLacks = [], statuses = [], channels = [], labels = [] } = rule;
  const name = plain(campaign.name);
  return (
    nameHolds.every((text) => name.includes(plain(text))) &&
    !nameLacks.some((text) => name.includes(plain(text))) &&
    (statuses.length === 0 || statuses.includes(campaign.status)) &&
    (channels.length === 0 || channels.includes(campaign.channel ?? '')) &&
    (labels.length === 0 || labels.some((label) => campaign.labels.includes(label)))
  );
}

const plain = (text: string) => text.trim().toLowerCase();

/**
 * A rule in words, to follow “hangs on”.
 * @example sayRule({ statuses: ['live'], channels: ['search'], nameHolds: ['hives'] }) // 'all live search campaigns whose name holds “hives”'
 */
export function sayRule({
  nameHolds = [],
  nameLacks = [],
  statuses = [],
  channels = [],
  labels = [],
}: HangRule): string {
  const quoted = (texts: readonly string[], joiner: string) =>
    texts.map((text) => `“${text}”`).join(` ${joiner} `);
  const kind = [statuses.join(' or '), channels.join(' or '), 'campaigns'].filter(Boolean).join(' ');
  const names = [
    nameHolds.length > 0 && `holds ${quoted(nameHolds, 'and')}`,
    nameLacks.length > 0 && `does not hold ${quoted(nameLacks, 'or')}`,
  ].filter(Boolean);
  const said = [
    `all ${kind}`,
    names.length > 0 && `whose name ${names.join(' and ')}`,
    labels.length > 0 && `with the label ${quoted(labels, 'or')}`,
  ];
  return said.filter(Boolean).join(' ');
}
