'use client';

import { useQuery } from '@tanstack/react-query';
import { mayDo } from '@/contracts/roles';
import { useAccount, useMay } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { doing } from '@/screens/frame/data/undo';
import { useUndoable } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';
import { Select } from '@/ui/select';

/** Who has the rest of the pass, and the choice of another person for it. */
export function PassHolder() {
  const { people, me } = useAccount();
  const { may } = useMay('prepare');
  const { query, call } = useRoutes();
  const undoable = useUndoable();
  const { data } = useQuery(query('GET mentions'));
  const others = people.filter(({ id, role }) => id !== me.id && mayDo(role, 'prepare'));
  const pass = data?.pass ?? null;
  async function give(key: string) {
    const to = others.find(({ id }) => String(id) === key)!;
    try {
      const { id } = await doing(call('POST pass/holder', { body: { to: to.id } }));
      await undoable(`The rest of this pass is ${to.name}’s`, () =>
        call('DELETE pass/holder/[mention]', { params: { mention: id } }),
      );
    } catch (error) {
      sayFailure(error);
    }
  }
  if (others.length === 0) return null;
  return (
    <span className="flex items-center gap-1.5 text-table whitespace-nowrap text-soft">
      {pass && (pass.isMine ? `${pass.by} gave you the rest of it` : `${pass.to} has the rest of it`)}
      {may && (
        <Select
          label="Give the rest to"
          look="word"
          className="font-normal!"
          placeholder="Give the rest to…"
          options={others.map(({ id, name }) => ({ key: String(id), says: name }))}
          value={null}
          onChange={(key) => void give(key)}
        />
      )}
    </span>
  );
}
