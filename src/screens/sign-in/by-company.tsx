'use client';

import { useState } from 'react';
import { useSearchParams } from 'next/navigation';
import { call } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { Fault } from '@/ui/form';

/** Leads to the company, where one signs in, and which leads back. */
export function ByCompany({ company }: { company: string }) {
  const isUnknown = useSearchParams().get('unknown') === 'company';
  const [fault, setFault] = useState(
    isUnknown ? `${company} names nobody whom we know. Ask whoever owns your account for a link.` : null,
  );
  const go = () =>
    goToCompany().catch((error: unknown) =>
      setFault(error instanceof Error ? error.message : 'It did not work.'),
    );
  return (
    <div className="mt-5 border-t border-line pt-4">
      <Button onClick={() => void go()}>Sign in by {company}</Button>
      {fault && <Fault>{fault}</Fault>}
    </div>
  );
}

/** @throws Declined when the company does not answer */
export async function goToCompany(): Promise<void> {
  const { address } = await call('', 'POST /sign-in/company', {});
  window.location.assign(address);
}
