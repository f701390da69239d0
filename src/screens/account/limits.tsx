'use client';

import { useState } from 'react';
import type { AccountView } from '@/contracts/account';
import { NumberField } from './simple-settings';
import { Setting } from './setting';
import { useSaving, useSetting } from './use-settings';

const PARTS = [
  ['accountNegatives', 'negatives on the account,'],
  ['listNegatives', 'in a shared list,'],
  ['listPlacements', 'placements in a placement list,'],
  ['listsOnCampaign', 'lists on a campaign; a negative holds up to'],
  ['wordsInNegative', 'words and'],
  ['charactersInNegative', 'characters'],
] as const;

/** What the account's platform allows. */
export function Limits({ view: { settings } }: { view: AccountView }) {
  const saving = useSaving();
  const setting = useSetting();
  const { limits } = settings;
  const typedOf = () => PARTS.map(([name]) => String(limits[name]));
  const [typed, setTyped] = useState(typedOf);
  const wanted = Object.fromEntries(
    PARTS.map(([name], i) => [name, Number(typed[i])]),
  ) as AccountView['settings']['limits'];
  return (
    <Setting
      name="Limits"
      says="What your platform allows. What would go over is refused before it is sent or handed over, with what is needless there."
      saving={saving}
      isChanged={PARTS.some(([name]) => wanted[name] !== limits[name])}
      onSave={() => void saving.save(setting({ limits: wanted }, { limits }))}
      onLeave={() => setTyped(typedOf())}
    >
      The platform takes
      {PARTS.map(([name, words], i) => (
        <span key={name} className="inline-flex items-center gap-1.5">
          <NumberField
            label={`Limit: ${words.replace(/[,;].*/, '')}`}
            value={typed[i]!}
            wide
            onChange={(value) => setTyped(typed.with(i, value))}
          />
          {words}
        </span>
      ))}
    </Setting>
  );
}
