'use client';

import { PersonSchema, type AccountView } from '@/contracts/account';
import { Button } from '@/ui/button';
import { Fault, InlineField } from '@/ui/form';
import { Setting } from './setting';
import { useSettingForm } from './use-setting-form';
import { useSaving } from './use-settings';
import { useRoutes } from '@/screens/frame/data/routes';

/** Who can be chosen in the top strip; what somebody decided stays when he or she is retired. */
export function People({ view: { people } }: { view: AccountView }) {
  const { call } = useRoutes();
  const saving = useSaving();
  const retire = (id: number, isRetired: boolean) =>
    call('PUT people/[person]', { params: { person: id }, body: { isRetired } });
  const form = useSettingForm(PersonSchema, { name: '' }, ({ name }) => async () => {
    const { id } = await call('POST people', { body: { name } });
    return { said: `${name} is among the people`, undo: () => retire(id, true) };
  });
  return (
    <Setting
      name="People"
      says="Every decision names a person. Who is retired can not be chosen any more; what he or she decided stays under the name. People work on all accounts."
      form={form}
    >
      <ul className="basis-full" aria-label="People">
        {people.map((person) => (
          <li key={person.id} className="flex min-h-7 items-center gap-2">
            <span className={`w-56 truncate ${person.isRetired ? 'text-soft' : ''}`}>
              {person.name}
              {person.isRetired && ', retired'}
            </span>
            <Button
              tone="quiet"
              aria-label={`${person.isRetired ? 'Take back' : 'Retire'} ${person.name}`}
              onClick={() =>
                void saving.save(async () => {
                  await retire(person.id, !person.isRetired);
                  return {
                    said: `${person.name} is ${person.isRetired ? 'back' : 'retired'}`,
                    undo: () => retire(person.id, person.isRetired),
                  };
                })
              }
            >
              {person.isRetired ? 'Take back' : 'Retire'}
            </Button>
          </li>
        ))}
      </ul>
      {saving.fault && <Fault>{saving.fault}</Fault>}
      <span aria-hidden>Add</span>
      <InlineField
        label="Add"
        className="w-56"
        maxLength={80}
        placeholder="A name"
        {...form.fields.register('name')}
      />
    </Setting>
  );
}
