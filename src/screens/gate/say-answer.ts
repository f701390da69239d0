import type { GateAnswer } from '@/contracts/gate';

/** The answer in one line. Where nothing is live, nothing is stopped either. */
export function sayWhole({ adGroups, open }: Pick<GateAnswer, 'adGroups' | 'open'>): string {
  if (adGroups === 0) return 'Nothing is live that could serve it';
  if (open === adGroups) return 'Through everywhere';
  return open === 0 ? 'Stopped everywhere' : `Through in ${open}, stopped in ${adGroups - open} ad groups`;
}

/** The answer of one campaign. */
export function sayCampaign({
  status,
  open,
  stopped,
}: Pick<GateAnswer['campaigns'][number], 'status' | 'open' | 'stopped'>): string {
  if (status === 'paused' || status === 'ended') return `${status}: serves nothing`;
  if (open + stopped === 0) return 'no live ad group: serves nothing';
  if (stopped === 0) return 'through';
  return open === 0 ? 'stopped' : `through in ${open}, stopped in ${stopped}`;
}
