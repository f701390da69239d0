'use client';

import { useQuery } from '@tanstack/react-query';
import { parseAsString, useQueryState } from 'nuqs';
import type { GateAnswer } from '@/contracts/gate';
import { InHand } from '@/screens/frame/in-hand';
import { StateIcon } from '@/ui/state-icon';
import { sayCampaign, sayWhole } from './say-answer';
import { MatchChip } from '@/ui/match-chip';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** Any query: does it get through, where, and which negative stops it. */
export function GateScreen() {
  const routes = useRoutes();
  const [query] = useQueryState('query', parseAsString.withDefault(''));
  const { data, error } = useQuery({
    ...routes.query('GET gate', { query: { query } }),
    enabled: query !== '',
  });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-baseline gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-title font-bold">Gate check</h1>
        <p className="min-w-0 truncate text-soft">
          {query === ''
            ? 'Type a query in the field above; the key g goes there.'
            : `Would “${query}” get through?`}
        </p>
      </header>
      {error && <p className="p-4 text-rust">{error.message}</p>}
      {data &&
        (data.text === '' ? (
          <p className="p-4">This query holds no word, so no negative can stop it.</p>
        ) : (
          <Answer answer={data} />
        ))}
      <InHand>
        {data ? (
          <div className="mt-1 text-table">
            <p>
              Compared as <b>{data.text}</b>
            </p>
            {data.stoppedByTray + data.openedByTray > 0 ? (
              <p className="text-pine">
                <StateIcon kind="drafted" /> With the tray it would{' '}
                {data.stoppedByTray > 0
                  ? `be stopped in ${counted(data.stoppedByTray, 'ad group')} more`
                  : `pass in ${counted(data.openedByTray, 'ad group')} more`}
                .
              </p>
            ) : (
              <p className="text-soft">The tray changes nothing for it.</p>
            )}
          </div>
        ) : (
          <p className="mt-1 text-table text-soft">Nothing is asked yet.</p>
        )}
      </InHand>
    </div>
  );
}

function Answer({ answer }: { answer: GateAnswer }) {
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-4 py-3" tabIndex={0} role="group" aria-label="Answer">
      <p className="font-title text-figure font-bold" role="status" data-testid="gate-answer">
        <StateIcon kind={answer.open === 0 ? 'stopped' : 'open'} className="mr-2" />
        {sayWhole(answer)}
      </p>
      <p className="mb-3 text-table text-soft">
        Of {counted(answer.adGroups, 'live ad group')} in this account. What is paused or ended serves
        nothing. Negatives are literal: plurals and misspellings pass.
      </p>
      {answer.stoppers.length > 0 && (
        <table className="mb-4 w-full text-table">
          <caption className="pb-1 text-left text-base font-semibold">What stops it</caption>
          <thead className="text-left text-small text-soft">
            <tr>
              <th className="font-normal">negative</th>
              <th className="font-normal">where it sits</th>
              <th className="font-normal">stops it in</th>
            </tr>
          </thead>
          <tbody>
            {answer.stoppers.map((s) => (
              <tr
                key={`${s.match} ${s.text} ${s.placeName} ${s.state}`}
                className="border-t border-line align-baseline"
              >
                <td className="py-1 pr-3">
                  <StateIcon kind={s.state === 'in the tray' ? 'drafted' : 'stopped'} /> <b>{s.text}</b>{' '}
                  <MatchChip match={s.match} />
                  {s.state !== 'in force' && <span className="text-pine"> {s.state}</span>}
                </td>
                <td className="pr-3">{s.placeName}</td>
                <td>
                  {counted(s.adGroups, 'ad group')} of {s.campaigns.slice(0, 4).join(', ')}
                  {s.campaigns.length > 4 && ` and ${s.campaigns.length - 4} more campaigns`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <table className="w-full text-table">
        <caption className="pb-1 text-left text-base font-semibold">Campaign by campaign</caption>
        <tbody>
          {answer.campaigns.map((c) => (
            <tr key={c.id} className="border-t border-line align-baseline">
              <td className="py-1 pr-3 font-semibold whitespace-nowrap">
                <StateIcon kind={c.open === 0 ? 'stopped' : 'open'} /> {c.name}
              </td>
              <td className="pr-3 whitespace-nowrap">{sayCampaign(c)}</td>
              <td className="text-soft">
                {c.stopped > 0 && c.open > 0 ? `stopped in ${c.stoppedIn.join(', ')}` : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
