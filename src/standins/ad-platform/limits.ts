import type { Limits } from '@/core';

/** What this platform allows (rules 12). */
export const STANDIN_LIMITS: Limits = {
  accountNegatives: 1_200,
  listNegatives: 4_000,
  listPlacements: 20_000,
  listsOnCampaign: 25,
  wordsInNegative: 12,
  charactersInNegative: 100,
};
