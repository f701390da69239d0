'use client';

import { useEffect, useState } from 'react';
import { Button, Key } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { KEYS, useSingleKeys } from './keys';
import { isTyping } from './typing';
import { Check } from '@/ui/check';

/** All keys on one page, and the switch for single letters. */
export function KeysHelp() {
  const [isOpen, setOpen] = useState(false);
  const [single, setSingle] = useSingleKeys();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && single && !isTyping(event.target)) setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [single]);
  return (
    <>
      <button
        type="button"
        aria-label="Keys"
        title="Keys"
        className="min-h-6 text-soft hover:text-ink"
        onClick={() => setOpen(true)}
      >
        <Key>?</Key>
      </button>
      {isOpen && (
        <DialogFrame title="Keys" onClose={() => setOpen(false)}>
          {KEYS.map(({ where, keys }) => (
            <section key={where} className="mt-1 text-table">
              <h3 className="text-soft">{where}</h3>
              <dl className="mt-1 grid grid-cols-2 gap-x-6 gap-y-1">
                {keys.map(([key, does]) => (
                  <div key={key} className="flex gap-2.5">
                    <dt className="w-14 shrink-0 text-right">
                      <Key>{key}</Key>
                    </dt>
                    <dd>{does}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
          <label className="mt-4 flex items-center gap-2 border-t border-line pt-3 text-table">
            <Check checked={single} onChange={(e) => setSingle(e.target.checked)} />
            Single letters and digits act. They do so only while the table has the focus, but for g and ?.
          </label>
          <Button className="self-start" onClick={() => setOpen(false)}>
            Close
          </Button>
        </DialogFrame>
      )}
    </>
  );
}
