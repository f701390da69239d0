'use client';

import Link from 'next/link';
import { counted } from '@/core';
import type { Finding } from '@/contracts/findings';
import { useAccount } from '@/screens/frame/account-context';
import { InHand } from '@/screens/frame/in-hand';
import { Button, Key } from '@/ui/button';
import { focusWork } from '@/ui/focus-work';
import { TextField } from '@/ui/form';
import { formatCount, formatDay, formatMoment } from '@/ui/format';
import type { FindingChoice } from './use-finding';

/** The finding in hand, or all that are marked: yes, no with its reason, or later. */
export function FindingInHand({ finding }: { finding: FindingChoice }) {
  const { slug } = useAccount().summary;
  const { line, lines, say, accept, refuse, later, openAgain, why, setWhy, fault, reason, pile } = finding;
  if (!line || lines.length === 0) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  const isMany = lines.length > 1;
  const changes = lines.flatMap((one) => one.changes).length;
  const verdicts = lines.filter(({ verdict }) => verdict !== null);
  const { decided } = line;
  return (
    <InHand
      title={isMany ? `${formatCount(lines.length)} marked` : line.term}
      actions={
        <div className="flex flex-wrap items-center gap-1.5">
          {pile === 'open' ? (
            <>
              <Button tone="main" disabled={changes + verdicts.length === 0} onClick={() => void accept()}>
                Yes, {sayYes(lines)} {isMany ? 'them' : 'it'} <Key>↵</Key>
              </Button>
              <Button onClick={() => void later()}>
                In a week <Key>l</Key>
              </Button>
            </>
          ) : (
            <Button tone="main" onClick={() => void openAgain()}>
              Open again <Key>o</Key>
            </Button>
          )}
          {pile !== 'refused' && (
            <Button onClick={() => void refuse()}>
              No <Key>x</Key>
            </Button>
          )}
        </div>
      }
    >
      <div className="mt-1 flex flex-col gap-1.5 text-table">
        {isMany ? (
          <p>
            {[
              changes > 0 && `${counted(changes, 'change')} would be put in the tray`,
              verdicts.length > 0 && `${counted(verdicts.length, 'term')} kept open or set aside at once`,
              changes + verdicts.length === 0 && 'These rules only tell',
            ]
              .filter(Boolean)
              .join(', ')}
            .
          </p>
        ) : (
          <>
            <p>
              The rule “{line.rule}” found it on {formatDay(line.foundOn)}: {say(line)}.
            </p>
            <p className="text-soft">{sayPlace(line)}.</p>
            {line.against.map((rule) => (
              <p key={rule} className="text-rust">
                The rule “{rule}” found it, too, and wants the opposite. You decide which of them is right.
              </p>
            ))}
            {line.about === 'terms' && (
              <p>
                <Link
                  className="text-pine underline"
                  href={`/${slug}/sift?view=all&text=${encodeURIComponent(line.term)}`}
                >
                  Look at it in Sift
                </Link>
              </p>
            )}
            {decided && (
              <p>
                {decided.until === null
                  ? 'Refused'
                  : `To be looked at again on ${formatDay(decided.until)}, says`}{' '}
                {decided.until === null ? 'by ' : ''}
                {decided.by}, {formatMoment(decided.at)}
                {decided.why && `: ${decided.why}`}.
              </p>
            )}
          </>
        )}
        {pile !== 'refused' && (
          <form
            aria-label="No, for a reason"
            onSubmit={(event) => {
              event.preventDefault();
              void refuse();
            }}
            onKeyDown={(event) => event.key === 'Escape' && focusWork()}
          >
            <TextField
              label="Reason for a no, which the rule keeps"
              ref={reason}
              value={why}
              maxLength={300}
              fault={fault}
              onChange={(event) => setWhy(event.target.value)}
            />
          </form>
        )}
      </div>
    </InHand>
  );
}

/** What a yes does to findings, as a verb. */
function sayYes(lines: readonly Finding[]): string {
  return [...new Set(lines.map(verbOf))].join(' or ');
}

function verbOf({ does }: Finding): string {
  switch (does) {
    case 'stop':
    case 'stop in list':
    case 'tell': // its button is off
      return 'stop';
    case 'set bid':
      return 'bid so for';
    case 'raise budget':
      return 'set the budget for';
    case 'keep':
    case 'set aside':
    case 'promote':
    case 'pause':
    case 'hang':
      return does;
  }
}

function sayPlace({ does, place, changes: [change] }: Finding): string {
  if (does === 'tell') return 'The rule only tells';
  if (does === 'promote') return `Promoted to: ${place}`;
  return does === 'stop' || does === 'stop in list'
    ? `Stopped as ${change?.kind === 'add negative' ? change.match : 'exact'} in: ${place}`
    : `It would be ${place}`;
}
