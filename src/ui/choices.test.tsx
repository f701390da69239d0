import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import * as v from 'valibot';
import { expect, test, vi } from 'vitest';
import { InlineField, SelectField, useValidForm } from './form';
import { RangeForm } from './range-form';
import { optionsOf, Select } from './select';
import { ToggleGroup } from './toggle-group';

function Returns({ onChoose }: { onChoose: (key: string) => void }) {
  const [value, setValue] = useState('some');
  return (
    <Select
      label="Return"
      options={[
        { key: '', says: 'any' },
        { key: 'some', says: 'some' },
        { key: 'gone', says: 'gone', isDisabled: true },
      ]}
      value={value}
      onChange={(key) => {
        setValue(key);
        onChoose(key);
      }}
    />
  );
}

test('a choice is opened, gone through and taken by keys, the empty one too', async () => {
  const user = userEvent.setup();
  const onChoose = vi.fn();
  render(<Returns onChoose={onChoose} />);
  await user.tab();
  await user.keyboard('{Enter}');
  expect(screen.getAllByRole('option').map((option) => option.textContent)).toEqual(['any', 'some', 'gone']);
  await user.keyboard('{ArrowUp}{Enter}');
  expect(onChoose).toHaveBeenLastCalledWith('');
  expect(screen.getByRole('combobox', { name: 'Return' }).textContent).toBe('any');
});

test('what can not be chosen is passed over', async () => {
  const user = userEvent.setup();
  const onChoose = vi.fn();
  render(<Returns onChoose={onChoose} />);
  await user.click(screen.getByRole('combobox', { name: 'Return' }));
  await user.keyboard('{End}{Enter}');
  expect(onChoose).not.toHaveBeenCalledWith('gone');
});

test('a few that are all in sight are one stop of Tab, and one of them stays chosen', async () => {
  const user = userEvent.setup();
  const onChange = vi.fn();
  const two = [
    { key: 'a', says: 'Runs' },
    { key: 'b', says: 'Themes' },
  ] as const;
  render(<ToggleGroup label="Words by" options={two} value="a" onChange={onChange} />);
  await user.tab();
  expect(document.activeElement).toBe(screen.getByRole('radio', { name: 'Runs' }));
  await user.click(screen.getByRole('radio', { name: 'Runs' })); // pressed again, it stays
  expect(onChange).not.toHaveBeenCalled();
  await user.keyboard('{ArrowRight} ');
  expect(onChange).toHaveBeenCalledWith('b');
});

const Schema = v.object({
  match: v.picklist(['phrase', 'exact']),
  text: v.pipe(v.string(), v.minLength(2, 'Two letters at least.')),
});
function NegativeForm({ onTake }: { onTake: (typed: v.InferInput<typeof Schema>) => void }) {
  const { register, control, handleSubmit, formState } = useValidForm(Schema, { match: 'phrase', text: '' });
  return (
    <form noValidate onSubmit={(event) => void handleSubmit(onTake)(event)}>
      <SelectField label="Match" control={control} name="match" options={optionsOf(['phrase', 'exact'])} />
      <InlineField label="Text" fault={formState.errors.text?.message} {...register('text')} />
      <button type="submit">Take</button>
    </form>
  );
}

test('a form hands on what was chosen and typed once it is right', async () => {
  const user = userEvent.setup();
  const onTake = vi.fn();
  render(<NegativeForm onTake={onTake} />);
  await user.type(screen.getByLabelText('Text'), 'b{Enter}');
  expect(screen.getByLabelText('Text').getAttribute('aria-invalid')).toBe('true');
  expect(onTake).not.toHaveBeenCalled();
  await user.click(screen.getByRole('combobox', { name: 'Match' }));
  await user.click(screen.getByRole('option', { name: 'exact' }));
  await user.type(screen.getByLabelText('Text'), 'ee{Enter}');
  expect(onTake.mock.calls[0]![0]).toEqual({ match: 'exact', text: 'bee' });
});

test.each([
  ['2026-11-10', '2026-11-01', /comes before the first/],
  ['2026-11-10', '', /Give both days/],
  ['2026-11-01', '2026-11-30', /too long/],
])('a range from %s to %s is not taken', async (from, to, said) => {
  const user = userEvent.setup();
  const onTake = vi.fn();
  render(
    <RangeForm
      names={['First day', 'Last day']}
      range={{ from, to }}
      faultOf={() => 'The range is too long.'}
      takes="Take"
      onTake={onTake}
    />,
  );
  await user.click(screen.getByRole('button', { name: 'Take' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(said);
  expect(onTake).not.toHaveBeenCalled();
});
