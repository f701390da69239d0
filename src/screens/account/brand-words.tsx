'use client';

import { useState } from 'react';
import type { AccountView } from '@/contracts/account';
import { FIELD, Setting } from './setting';
import { useSaving, useSetting } from './use-settings';

/** Names of the advertiser: no word that holds one is ever offered as a word at fault. */
export function BrandWords({ view: { settings } }: { view: AccountView }) {
  const saving = useSaving();
  const setting = useSetting();
  const was = settings.brandWords.join(', ');
  const [typed, setTyped] = useState(was);
  const words = typed.split(',').map((word) => word.trim());
  return (
    <Setting
      name="Brand words"
      says="Your own names, separated by commas. Words that hold one of them are never offered as words at fault: who asks for you by name is let through, whatever the figures of a few days say."
      saving={saving}
      isChanged={typed.trim() !== was}
      onSave={() => void saving.save(setting({ brandWords: words }, { brandWords: settings.brandWords }))}
      onLeave={() => setTyped(was)}
    >
      <label htmlFor="brand-words">Its own names are</label>
      <input
        id="brand-words"
        className={`${FIELD} w-96 max-w-full`}
        placeholder="your brand, your shop"
        maxLength={2_000}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
    </Setting>
  );
}
