'use client';

import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { askToSend } from '@/screens/tray/ask-to-send';
import { Key } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { useAccount } from './account-context';
import { useRoutes } from './data/routes';
import { undoLast } from './data/undo';
import { SCREENS, SETTINGS } from './screens';

type Props = {
  /** a command of the frame */
  commands: readonly { name: string; run: () => void }[];
};

/** Ctrl K: to any screen, campaign, list, search term or setting, and any command. */
export function Jump({ commands }: Props) {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey) || event.shiftKey) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button
        type="button"
        aria-label="Go to anything"
        aria-keyshortcuts="Control+K"
        className="min-h-6 whitespace-nowrap text-soft hover:text-ink max-[1180px]:hidden"
        onClick={() => setOpen(true)}
      >
        <span className="max-[900px]:hidden">Go to</span> <Key>Ctrl K</Key>
      </button>
      {isOpen && (
        <DialogFrame
          title={<span className="sr-only">Go to anything</span>}
          width={560}
          onClose={() => setOpen(false)}
        >
          <Choices commands={commands} onDone={() => setOpen(false)} />
        </DialogFrame>
      )}
    </>
  );
}

function Choices({ commands, onDone }: Props & { onDone: () => void }) {
  const [typed, setTyped] = useState('');
  const router = useRouter();
  const { query } = useRoutes();
  const { summary, accounts } = useAccount();
  const { slug } = summary;
  const wanted = typed.trim();
  const { data: lists } = useQuery({ ...query('GET lists') });
  const { data: terms } = useQuery({
    ...query('GET sift/terms', { query: { text: wanted, sort: 'cost', most: '8' } }),
    enabled: wanted.length > 1,
    gcTime: 10_000,
  });
  const go = (path: string) => () => {
    onDone();
    router.push(path.startsWith('/') ? path : `/${slug}/${path}`);
  };
  const run = (work: () => void) => () => {
    onDone();
    work();
  };
  const item = (key: string, says: string, onSelect: () => void) => (
    <Command.Item
      key={key}
      value={`${says} ${key}`}
      className="cursor-pointer rounded px-2 py-1 data-[selected=true]:bg-raised"
      onSelect={onSelect}
    >
      {says}
    </Command.Item>
  );
  const heading =
    '[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-small [&_[cmdk-group-heading]]:text-soft';
  return (
    <Command label="Go to anything" className="text-table">
      <Command.Input
        autoFocus
        value={typed}
        onValueChange={setTyped}
        placeholder="A screen, campaign, list, search term, setting or command"
        className="w-full border-b border-line bg-transparent py-1.5 text-base outline-none placeholder:text-soft"
      />
      <Command.List className="mt-1 h-[360px] overflow-y-auto">
        <Command.Empty className="px-2 py-2 text-soft">Nothing here is called that.</Command.Empty>
        <Command.Group heading="screens" className={heading}>
          {SCREENS.map(({ path, name }) => item(path, name, go(path)))}
          {item('pass', 'What surely can’t pay (Sift)', go('sift?show=pass'))}
          {item('coverage', 'Coverage (Lists)', go('lists?show=coverage'))}
        </Command.Group>
        <Command.Group heading="commands" className={heading}>
          {item('send', summary.isConnected ? 'Send the tray' : 'Hand the tray over', run(askToSend))}
          {item(
            'undo',
            'Undo what was done last',
            run(() => void undoLast()),
          )}
          {commands.map((command) => item(command.name, command.name, run(command.run)))}
        </Command.Group>
        {terms && terms.lines.length > 0 && (
          <Command.Group heading="search terms" className={heading}>
            {terms.lines.map(({ id, raw }) =>
              item(`term ${id}`, raw, go(`sift?text=${encodeURIComponent(raw)}`)),
            )}
          </Command.Group>
        )}
        <Command.Group heading="campaigns" className={heading}>
          {lists?.campaigns.map(({ id, name }) =>
            item(`campaign ${id}`, name, go(`sift?campaign=${encodeURIComponent(id)}`)),
          )}
        </Command.Group>
        <Command.Group heading="lists" className={heading}>
          {lists?.lists.map(({ id, name }) =>
            item(`list ${id}`, name, go(`lists?show=entries&list=${encodeURIComponent(id)}`)),
          )}
        </Command.Group>
        <Command.Group heading="settings" className={heading}>
          {SETTINGS.map((name) =>
            item(`setting ${name}`, name, go(`account?setting=${encodeURIComponent(name)}`)),
          )}
        </Command.Group>
        <Command.Group heading="accounts" className={heading}>
          {accounts
            .filter((account) => account.slug !== slug)
            .map((account) => item(`account ${account.slug}`, account.name, go(`/${account.slug}/today`)))}
        </Command.Group>
      </Command.List>
      {wanted !== '' && (
        <button
          type="button"
          className="min-h-6 w-full border-t border-line px-2 pt-1 text-left text-pine hover:underline"
          onClick={go(`gate?query=${encodeURIComponent(wanted)}`)}
        >
          Would “{wanted}” get through?
        </button>
      )}
    </Command>
  );
}
