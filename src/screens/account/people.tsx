'use client';

import { NewMemberSchema, type AccountView } from '@/contracts/account';
import { MEMBER_ROLES, ROLE_NAMES, ROLES, type Member, type MemberRole, type Role } from '@/contracts/roles';
import { useMay } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { Fault, InlineField, SelectField } from '@/ui/form';
import { optionsIn, Select } from '@/ui/select';
import { DataOfPerson } from './data-of-person';
import { Setting } from './setting';
import { SignInLink } from './sign-in-link';
import { useSettingForm } from './use-setting-form';
import { useSaving } from './use-settings';

const ROLES_OFFERED = optionsIn([...MEMBER_ROLES].reverse(), ROLE_NAMES);
const ROLES_OF_NEW = optionsIn([...ROLES].reverse(), ROLE_NAMES);

/** Who works in the account, and what each may do in it. */
export function People({ view: { people } }: { view: AccountView }) {
  const { call } = useRoutes();
  const { may } = useMay('own');
  const saving = useSaving();
  const setRole = (id: number, role: MemberRole) =>
    call('PUT people/[person]', { params: { person: id }, body: { role } });
  const change = ({ id, name, role: before }: Member, role: MemberRole) =>
    saving.save(async () => {
      await setRole(id, role);
      return { said: `${name} ${ROLE_NAMES[role]}`, undo: () => setRole(id, before) };
    });
  const form = useSettingForm(
    NewMemberSchema,
    { name: '', role: 'prepare' as Role },
    ({ name, role }) =>
      async () => {
        const { id } = await call('POST people', { body: { name, role } });
        return { said: `${name} ${ROLE_NAMES[role]}`, undo: () => setRole(id, 'none') };
      },
  );
  return (
    <Setting
      name="People"
      says="Who may look reads everything. Who may prepare decides, and fills the tray. Who may send also sends the tray, or hands it over. Who owns the account also sets what stands on this page. What somebody decided stays under his or her name."
      form={form}
    >
      <ul className="basis-full" aria-label="People">
        {people.map((person) => (
          <li key={person.id} className="flex min-h-7 items-center gap-2">
            <span className={`w-56 truncate max-[1180px]:w-36 ${person.role === 'none' ? 'text-soft' : ''}`}>
              {person.name}
            </span>
            <span className="w-36 shrink-0">
              <Select
                label={`What ${person.name} may do`}
                look="word"
                className="font-normal!"
                options={ROLES_OFFERED}
                value={person.role}
                onChange={(role) => void change(person, role)}
              />
            </span>
            {may && person.role !== 'none' && <SignInLink person={person} />}
            {may && <DataOfPerson person={person} />}
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
      who
      <SelectField
        label="What who is added may do"
        control={form.fields.control}
        name="role"
        options={ROLES_OF_NEW}
      />
    </Setting>
  );
}
