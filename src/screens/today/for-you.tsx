'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import type { Mention } from '@/contracts/mentions';
import { useAccount } from '@/screens/frame/account-context';
import { askAgain, useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { askToSend } from '@/screens/tray/ask-to-send';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { formatMoment } from '@/ui/format';

/** What others told oneself: what waits, each with the way to what it is about. */
export function ForYou() {
  const { query, call } = useRoutes();
  const { slug } = useAccount().summary;
  const client = useQueryClient();
  const undoable = useUndoable();
  const { data } = useQuery({ ...query('GET mentions'), staleTime: 0 });
  const waiting = data?.lines.filter(({ isSeen }) => !isSeen) ?? [];
  if (waiting.length === 0) return null;
  async function see(mention: Mention, isSeen: boolean) {
    await call('POST mentions/[mention]/seen', { params: { mention: mention.id }, body: { isSeen } });
    await askAgain(client, slug, ['notes']);
  }
  const seen = (mention: Mention) =>
    see(mention, true)
      .then(() => undoable('Seen', () => see(mention, false)))
      .catch(sayFailure);
  return (
    <section aria-label="For you" className="mb-4 text-table">
      <h2 className="font-semibold">For you</h2>
      <ul>
        {waiting.map((mention) => (
          <li key={mention.id} className="flex items-start gap-2 border-b border-line py-1">
            <span className="min-w-0 flex-1">
              {mention.by} on <About mention={mention} />: {mention.body}{' '}
              <span className="text-small text-soft">{formatMoment(mention.at)}</span>
            </span>
            <Button tone="quiet" aria-label={`Seen: ${mention.body}`} onClick={() => void seen(mention)}>
              Seen
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The way to what it is about; a change stands in the tray beside. */
function About({ mention: { kind, about, label } }: { mention: Mention }) {
  const { slug } = useAccount().summary;
  if (kind === 'change')
    return (
      <button type="button" className="underline" onClick={askToSend}>
        {label}
      </button>
    );
  const at = {
    term: `sift?view=all&text=${encodeURIComponent(about)}`,
    theme: `sift?panel=themes`,
    list: `lists?list=${encodeURIComponent(about)}`,
    pass: 'sift?show=pass',
  }[kind];
  return (
    <Link href={`/${slug}/${at}`} prefetch={false} className="underline">
      {label}
    </Link>
  );
}
