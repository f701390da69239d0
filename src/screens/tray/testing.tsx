import { screen } from '@testing-library/react';
import type { UserEvent } from '@testing-library/user-event';
import { aTrayChange, aTrayView, aWeight } from '../testing/builders';

/** A stop, and a list that is hung where it stops nothing. */
export const aFullTray = () =>
  aTrayView({
    changes: [
      aTrayChange(),
      aTrayChange({
        ...{ id: 2, kind: 'hang list', said: 'Hang Jobs on Hives', by: 'Tobias Finch' },
        change: { kind: 'hang list', listId: '1', campaignId: '1' },
        stops: aWeight(),
      }),
    ],
    stops: aWeight({ terms: 4, clicks: 12, costMicros: 7_500_000 }),
  });

/** Opens the page before sending, once it is known what is in the tray. */
export async function openPage(user: UserEvent) {
  await screen.findByText(/not (sent|handed over)/);
  await user.click(screen.getByRole('button', { name: /(Send|Hand) the tray/ }));
}
