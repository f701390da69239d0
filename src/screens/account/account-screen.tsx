'use client';

import { useQueryState } from 'nuqs';
import { useEffect } from 'react';
import type { AccountView } from '@/contracts/account';
import { InHand } from '@/screens/frame/in-hand';
import { Accounts } from './accounts';
import { Alerts } from './alerts/alerts';
import { ConversionKinds } from './conversion-kinds';
import { Connection } from './connection';
import { KeepsFocus } from './keep-focus';
import { Exports } from './exports';
import { Limits } from './limits';
import { OwnTargets } from './own-targets';
import { People } from './people';
import { ProductCodes } from './product-codes';
import { BrandWords } from './brand-words';
import {
  DefaultMatch,
  FilesKept,
  Keeper,
  LogsKept,
  LookBack,
  NameAndCurrency,
  Steering,
  Tolerance,
} from './simple-settings';
import { SecondLook } from './second-look';
import { settingId } from './setting';
import { SignIns } from './sign-ins';
import { useMay } from '@/screens/frame/account-context';
import { useAccountView } from './use-settings';
import { ErrorText } from '@/ui/said';

/** What the account is set to, as sentences: each says what it changes, and is set in place. */
export function AccountScreen() {
  const { data, error } = useAccountView();
  const [setting] = useQueryState('setting');
  const isThere = data !== undefined;
  useEffect(() => {
    const form = setting && document.getElementById(settingId(setting))?.closest('form, section');
    if (!isThere || !form) return;
    form.scrollIntoView({ block: 'center' });
    form.querySelector<HTMLElement>('input, button')?.focus();
  }, [setting, isThere]);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-baseline gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-title font-bold">Account</h1>
        <p className="min-w-0 truncate text-soft">
          What you set is an entry in the Ledger, and can be undone.
        </p>
      </header>
      <div
        className="relative min-h-0 flex-1 overflow-y-auto"
        tabIndex={0}
        role="group"
        aria-label="Settings"
      >
        <ErrorText error={error} isWhole />
        {data && (
          <KeepsFocus>
            <Settings view={data} />
          </KeepsFocus>
        )}
      </div>
      <InHand>
        <p className="mt-1 text-table text-soft">
          A setting is set by Enter or its button; Escape leaves it as it was. Ctrl Z undoes what was set
          last.
        </p>
      </InHand>
    </div>
  );
}

/** Fields begin anew when what is set changes. */
function Settings({ view }: { view: AccountView }) {
  const { settings } = view;
  const { may, who } = useMay('own');
  const key = (...of: unknown[]) => JSON.stringify(of);
  return (
    <>
      {view.isRetired && (
        <p className="border-b border-line bg-timber/10 px-4 py-2">
          This account is retired: it stands in no list. Take it back below, under Accounts.
        </p>
      )}
      {!may && (
        <p className="border-b border-line bg-timber/10 px-4 py-2">
          You read here what the account is set to. To have it changed, ask {who}.
        </p>
      )}
      <NameAndCurrency key={key('name', settings.name, settings.currency, view.hasFigures)} view={view} />
      <Steering
        key={key(settings.steersBy, settings.targetMicros, settings.targetAcos, settings.currency)}
        view={view}
      />
      <OwnTargets
        key={key('own', settings.steersBy, settings.currency, view.campaigns, view.productGroups)}
        view={view}
      />
      <LookBack key={key('days', settings.windowDays, settings.lagDays)} view={view} />
      <DefaultMatch key={key('match', settings.defaultMatch)} view={view} />
      <Tolerance key={key('tolerance', settings.promotionTolerance)} view={view} />
      <Keeper key={key('keeper', settings.keeperConversions)} view={view} />
      <BrandWords key={key('brand', settings.brandWords)} view={view} />
      <ConversionKinds key={key('kinds', settings.conversionKinds, view.kindsThere)} view={view} />
      <ProductCodes key={key('codes', settings.productCodePattern)} view={view} />
      <Limits key={key(settings.limits)} view={view} />
      <FilesKept key={key('files', settings.fileDays)} view={view} />
      <Connection key={key('platform', settings.platformAccountId)} view={view} />
      <People view={view} />
      <SecondLook key={key(view.secondLook, view.people, settings.currency)} view={view} />
      <Alerts />
      <LogsKept key={key('logs', settings.logDays)} view={view} />
      <SignIns />
      <Exports />
      <Accounts view={view} />
    </>
  );
}
