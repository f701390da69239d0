'use client';

import { useQuery } from '@tanstack/react-query';
import { ListFilter } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { memo, useState } from 'react';
import { toViewSearch, type SiftUrl } from '../sift-url';
import { READY_VIEWS, showsView, withView } from './ready-views';
import { SaveView } from './save-view';
import { useRoutes } from '@/screens/frame/data/routes';

type Props = { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void };

const item =
  'flex min-h-7 cursor-pointer flex-col justify-center rounded px-2.5 py-0.5 outline-none data-highlighted:bg-raised';

/** Ready views, and those that people have saved under a name. */
export const ViewsMenu = memo(function ViewsMenu({ url, onChange }: Props) {
  const [saving, setSaving] = useState(false);
  const { query } = useRoutes();
  const { data } = useQuery({
    ...query('GET views'),
  });
  const saved = data?.views ?? [];
  const name =
    READY_VIEWS.find((view) => showsView(url, view.filters))?.name ??
    saved.find((view) => view.search === toViewSearch(url))?.name;
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="flex items-center gap-1.5 rounded border border-line bg-sheet px-2 py-0.5 text-table font-semibold whitespace-nowrap hover:border-soft">
          <ListFilter size={14} aria-hidden />
          {name ?? 'Views'}
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            sideOffset={4}
            className="z-40 max-h-[80vh] w-80 overflow-y-auto rounded border border-line bg-sheet p-1 text-table shadow-lg"
          >
            {READY_VIEWS.map((view) => (
              <DropdownMenu.Item
                key={view.name}
                className={item}
                onSelect={() => onChange(withView(view.filters))}
              >
                <span className="font-semibold">{view.name}</span>
                <span className="text-small text-soft">{view.says}</span>
              </DropdownMenu.Item>
            ))}
            {saved.length > 0 && (
              <DropdownMenu.Label className="mt-1 border-t border-line px-2.5 pt-1.5 text-small text-soft">
                Saved
              </DropdownMenu.Label>
            )}
            {saved.map((view) => (
              <DropdownMenu.Item
                key={view.name}
                className={item}
                onSelect={() => onChange({ ...withView({}), ...fromSearch(view.search) })}
              >
                <span className="font-semibold">{view.name}</span>
                <span className="text-small text-soft">by {view.by}</span>
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item
              className={`${item} mt-1 border-t border-line text-pine`}
              onSelect={() => setSaving(true)}
            >
              Save these filters, or remove saved ones…
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {saving && <SaveView search={toViewSearch(url)} views={saved} onClose={() => setSaving(false)} />}
    </>
  );
});

/** A saved search as changes to the URL; what it says wrongly is explained there, as in any address. */
function fromSearch(search: string): Partial<SiftUrl> {
  const given = Object.fromEntries(new URLSearchParams(search));
  const { clicks, ...others } = given;
  return { ...others, ...(clicks === undefined ? {} : { clicks: Number(clicks) || 0 }) } as Partial<SiftUrl>;
}
