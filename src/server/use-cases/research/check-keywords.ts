import type * as v from 'valibot';
import { compileAccountGate, describePlace, type AccountShape } from '@/core';
import type { NewKeywordsSchema, StoppedKeywordsSchema } from '@/contracts/groups';
import { few } from '../../compute/workbench';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';

/** An id that no element has. */
const NEW = 'new';

/**
 * New keywords that would be stopped in a new ad group of a campaign, by what is in force and in the tray, each with the first negative that does.
 * @throws Refusal when there is no such campaign
 */
export async function checkKeywords(
  deps: Deps,
  slug: string,
  { campaignId, texts }: v.InferOutput<typeof NewKeywordsSchema>,
): Promise<v.InferOutput<typeof StoppedKeywordsSchema>> {
  const { draft, names } = await openWorkbench(deps, await requireAccount(deps, slug));
  const before = draft.gate.shape();
  if (campaignId !== null && !before.campaigns.some(({ id }) => id === campaignId))
    throw new Refusal('This campaign is not there any more. Choose another one.', 404);
  const shape = withAdGroup(before, campaignId);
  const gate = compileAccountGate(shape);
  const negatives = new Map(shape.negatives.map((negative) => [negative.id, negative]));
  const stopped = texts.flatMap((text) => {
    const [first] = gate.stoppers(text, NEW);
    const negative = first === undefined ? undefined : negatives.get(first);
    if (!negative) return [];
    return { text, by: `“${negative.text}” (${negative.match}) in ${describePlace(negative.place, names)}` };
  });
  return few(stopped);
}

/** The account with an ad group more, in a campaign or in a new one. */
function withAdGroup(shape: AccountShape, campaignId: string | null): AccountShape {
  const adGroup = { id: NEW };
  if (campaignId === null)
    return { ...shape, campaigns: [...shape.campaigns, { id: NEW, adGroups: [adGroup] }] };
  return {
    ...shape,
    campaigns: shape.campaigns.map((campaign) =>
      campaign.id === campaignId ? { ...campaign, adGroups: [...campaign.adGroups, adGroup] } : campaign,
    ),
  };
}
