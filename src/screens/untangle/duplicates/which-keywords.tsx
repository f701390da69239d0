'use client';

import { NEARNESS, OTHER_STATUSES, RUNGS, type DuplicatesView, type Nearness } from '@/contracts/duplicates';
import { Check } from '@/ui/check';
import { InlineField } from '@/ui/form';
import { formatCount } from '@/ui/format';
import { optionsIn, Select } from '@/ui/select';
import { ToggleGroup } from '@/ui/toggle-group';
import { useUntangleUrl } from '../untangle-url';

const NEAR: Record<Nearness, string> = {
  ...{ 'ad group': 'in one ad group', campaign: 'in one campaign', all: 'anywhere' },
};
const CLEAR = ['60', '75', '80', '90', '95', '99'] as const;

/** Which keywords count as the same: how alike, how near, which statuses; as a ladder and a sentence. */
export function WhichKeywords({ view }: { view: DuplicatesView | undefined }) {
  const [{ alike, near, besides, sure }, setUrl] = useUntangleUrl();
  const sureText = String(sure);
  const clear = CLEAR.some((one) => one === sureText) ? CLEAR : [sureText, ...CLEAR];
  return (
    <div className="border-b border-line px-3 py-1 text-table">
      <ToggleGroup
        label="How alike"
        className="flex-wrap gap-1"
        value={alike}
        onChange={(next) => void setUrl({ alike: next })}
        options={RUNGS.map((rung) => ({
          key: rung,
          says: (
            <>
              {rung === 'text and match type' || rung === 'text' ? `same ${rung}` : rung}{' '}
              <span className="text-soft">{view ? formatCount(view.rungs[rung]) : '…'}</span>
            </>
          ),
        }))}
      />
      <div className="mt-1 flex flex-wrap items-center gap-x-2 gap-y-1 text-soft">
        <Select
          label="How near"
          look="word"
          options={optionsIn(NEARNESS, NEAR)}
          value={near}
          onChange={(next) => void setUrl({ near: next })}
        />
        <span>of campaigns with</span>
        <CampaignsField />
        <span>also</span>
        {OTHER_STATUSES.map((status) => (
          <label key={status} className="flex items-center">
            <Check
              checked={besides.includes(status)}
              onChange={({ target }) =>
                void setUrl({
                  besides: target.checked ? [...besides, status] : besides.filter((one) => one !== status),
                })
              }
            />
            {status}
          </label>
        ))}
        <span className="ml-auto flex items-center gap-1">
          clear from
          <Select
            label="Clear from"
            look="word"
            options={clear.map((key) => ({ key, says: `${key} %` }))}
            value={sureText}
            onChange={(next) => void setUrl({ sure: Number(next) })}
          />
        </span>
      </div>
    </div>
  );
}

/** Asks when it is left, or Enter is pressed: each letter would be another question. */
function CampaignsField() {
  const [{ campaigns }, setUrl] = useUntangleUrl();
  const ask = (text: string) => text.trim() !== campaigns && void setUrl({ campaigns: text.trim() });
  return (
    <InlineField
      key={campaigns}
      label="Part of a campaign’s name, or a label"
      placeholder="any name or label"
      className="w-36"
      defaultValue={campaigns}
      onBlur={({ target }) => ask(target.value)}
      onKeyDown={({ key, currentTarget }) => key === 'Enter' && ask(currentTarget.value)}
    />
  );
}
