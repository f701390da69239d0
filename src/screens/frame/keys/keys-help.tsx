'use client';

import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Button, Key } from '@/ui/button';
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
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Dialog.Trigger aria-label="Keys" title="Keys" className="text-soft hover:text-ink">
        <Key>?</Key>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-50 max-h-[86vh] w-[640px] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded border border-line bg-sheet px-5 py-4"
        >
          <Dialog.Title className="font-title text-title font-bold">Keys</Dialog.Title>
          {KEYS.map(({ where, keys }) => (
            <section key={where} className="mt-3 text-table">
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
          <Dialog.Close asChild>
            <Button className="mt-3">Close</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
