import { max, min } from 'd3';
import { counted } from '@/core';
import type { NewAlert } from '../../repositories/alerts/alerts';
import { newestFindings } from '../../repositories/decisions/findings';
import { listRules } from '../../repositories/decisions/rules';
import { listReportFiles } from '../../repositories/intake/reports';
import { listOutsideChanges } from '../../repositories/structure/outside-changes';
import type { Deps } from '../deps';
import type { Open } from '../open-workbench';
import { findingsOf } from '../rules/findings';
import { missedWeek } from './missed-week';

/** What somebody should know of an account, whether it was told or not. Each has a key of its own. */
export async function whatCameUp(deps: Deps, open: Open): Promise<NewAlert[]> {
  return [
    ...(await ofRules(deps, open)),
    ...(await ofLoads(deps, open)),
    ...(await ofOthers(deps, open)),
    ...ofTray(deps, open),
    ...(await ofTarget(deps, open)),
  ];
}

const NOUNS = { terms: 'term', words: 'word', keywords: 'keyword', campaigns: 'campaign', lists: 'list' };

async function ofRules(deps: Deps, open: Open): Promise<NewAlert[]> {
  const rules = await listRules(deps.db, open.account.id);
  const { piles } = await findingsOf(deps, open);
  const newest = await newestFindings(deps.db, open.account.id);
  return rules.flatMap(({ id, name, version, state, trouble, rule: { about } }): NewAlert[] => {
    const found = piles.open.filter(({ ruleId }) => ruleId === id).length;
    const what = counted(found, NOUNS[about ?? 'terms']);
    return [
      ...(trouble === null
        ? []
        : [
            {
              ...{ kind: 'rule' as const, key: `trouble ${id} ${version} ${trouble}` },
              ...{ says: `The rule “${name}”: ${trouble}`, leadsTo: '/rules?shown=rules' },
            },
          ]),
      ...(state === 'on' && found > 0
        ? [
            {
              // One that was told of stays told of, whatever becomes of it: only a newer one comes up.
              ...{ kind: 'rule' as const, key: `found ${id} ${newest.get(id)}` },
              ...{ says: `The rule “${name}” found ${what}`, leadsTo: '/rules' },
            },
          ]
        : []),
    ];
  });
}

async function ofLoads(deps: Deps, { account }: Open): Promise<NewAlert[]> {
  const files = await listReportFiles(deps.db, account.id);
  return files
    .filter(({ state }) => state === 'failed')
    .map(({ id, name }) => ({
      ...{ kind: 'load', key: String(id), says: `The file ${name} was not loaded`, leadsTo: '/intake' },
    }));
}

async function ofOthers(deps: Deps, { account }: Open): Promise<NewAlert[]> {
  const [newest, ...others] = await listOutsideChanges(deps.db, account.id);
  if (!newest) return [];
  const says = others.length === 0 ? newest.said : `${newest.said}, and ${others.length} more`;
  return [
    {
      kind: 'drift',
      key: String(newest.id),
      says: `On the platform somebody else did this: ${says}`,
      leadsTo: '/ledger',
    },
  ];
}

/** A tray that is forgotten. */
const DAYS_UNSENT = 3;
const DAY_MS = 86_400_000;

function ofTray(deps: Deps, { drafted }: Open): NewAlert[] {
  const failed = drafted.filter(({ failedBefore }) => failedBefore !== null);
  const oldest = min(drafted, ({ draftedAt }) => draftedAt);
  const days = oldest === undefined ? 0 : (deps.clock.now().getTime() - Date.parse(oldest)) / DAY_MS;
  return [
    ...(failed.length > 0
      ? [
          {
            ...{ kind: 'tray' as const, key: `failed ${max(failed, ({ draftedAt }) => draftedAt)}` },
            says: `The platform did not take ${counted(failed.length, 'change')}: the tray holds them again`,
            leadsTo: '/today',
          },
        ]
      : []),
    ...(days >= DAYS_UNSENT
      ? [
          {
            ...{ kind: 'tray' as const, key: `unsent ${oldest}` },
            says: `${counted(drafted.length, 'change')} in the tray, not sent for ${counted(Math.floor(days), 'day')}`,
            leadsTo: '/today',
          },
        ]
      : []),
  ];
}

async function ofTarget(deps: Deps, open: Open): Promise<NewAlert[]> {
  const missed = await missedWeek(deps, open);
  return missed ? [{ kind: 'target', key: missed.to, says: missed.says, leadsTo: '/sift' }] : [];
}
