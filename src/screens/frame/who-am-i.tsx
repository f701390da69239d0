'use client';

import { ChevronDown } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import { toast } from 'sonner';
import { ROLE_NAMES, type Member } from '@/contracts/roles';
import { useChoosePerson } from '@/screens/start/use-choose-person';
import { Select } from '@/ui/select';
import { call } from './data/routes';

const sayMember = ({ name, role }: Member) => (role === 'own' ? name : `${name}, ${ROLE_NAMES[role]}`);

type Props = {
  me: Member;
  people: Member[];
  /** nobody signs in here: who one is, is chosen */
  isOpen: boolean;
};

/** Who one is, and the way out; where nobody signs in, the choice of who one is. */
export function WhoAmI({ me, people, isOpen }: Props) {
  const choose = useChoosePerson();
  if (!isOpen) return <SignedIn me={me} />;
  return (
    <Select
      label="You are"
      look="word"
      className="max-w-[130px] shrink-0 font-normal! max-[900px]:max-w-20"
      options={people.map((one) => ({ key: String(one.id), says: sayMember(one) }))}
      value={String(me.id)}
      onChange={choose}
    />
  );
}

const ITEM = 'cursor-default rounded px-2.5 py-1 outline-none data-highlighted:bg-raised';

function SignedIn({ me }: { me: Member }) {
  const router = useRouter();
  const leave = (route: 'POST /sign-out' | 'POST /sign-out/everywhere') =>
    call('', route, {})
      .then(() => router.push('/sign-in'))
      .catch((error: unknown) => toast.error(error instanceof Error ? error.message : 'It did not work.'));
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={`You are ${sayMember(me)}`}
        className="flex min-h-6 max-w-[180px] shrink-0 items-center gap-px border-b border-dashed border-soft max-[900px]:max-w-20"
      >
        <span className="truncate">{sayMember(me)}</span>
        <ChevronDown size={12} aria-hidden className="shrink-0 text-soft" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-40 rounded border border-line bg-sheet p-1 text-table shadow-lg"
        >
          <DropdownMenu.Item className={ITEM} onSelect={() => router.push('/you')}>
            How you sign in
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => void leave('POST /sign-out')}>
            Sign out
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => void leave('POST /sign-out/everywhere')}>
            Sign out on every machine
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
