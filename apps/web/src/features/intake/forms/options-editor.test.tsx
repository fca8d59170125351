import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { readForm, type FormField, type FormItem } from '@zesting/core';
import { useState } from 'react';
import { OptionsEditor } from './options-editor';
import { withPart } from './use-form-draft';

const parent: FormItem = { key: 'kind', kind: 'one_of', label: 'Kind', options: [{ value: 'still' }, { value: 'clip' }] };
let field: FormField;

function Edited() {
  const [now, setNow] = useState<FormField>({
    key: 'size',
    kind: 'one_of',
    label: 'Size',
    options: [{ value: 'wide' }, { value: 'tall' }],
  });
  const change = (part: Partial<FormField>) => {
    field = withPart(now, part) as FormField;
    setNow(field);
  };
  return <OptionsEditor field={now} items={[parent, now]} onChange={change} />;
}
const values = () => field.options?.map(({ value }) => value);

describe('what can be chosen', () => {
  it('is added, named, put in order and taken out', async () => {
    const user = userEvent.setup();
    render(<Edited />);
    await user.click(screen.getByRole('button', { name: 'Another choice' }));
    await user.type(screen.getByRole('textbox', { name: 'Choice 3' }), 'square');
    await user.click(screen.getByRole('button', { name: 'Move choice 3 up' }));
    expect(values()).toEqual(['wide', 'square', 'tall']);
    expect(screen.getByRole('button', { name: 'Move choice 1 up' })).toBeDisabled();
    expect(screen.getByRole('button', { name: 'Move choice 3 down' })).toBeDisabled();
    await user.click(screen.getByRole('button', { name: 'Take out choice 1' }));
    expect(values()).toEqual(['square', 'tall']);
  });

  it('is offered under choices of another question: at first under all, then as ticked, and again always', async () => {
    const user = userEvent.setup();
    render(<Edited />);
    await user.selectOptions(screen.getByRole('combobox', { name: 'The choices depend on' }), 'Kind');
    expect(field.options).toEqual([
      { value: 'wide', under: ['still', 'clip'] },
      { value: 'tall', under: ['still', 'clip'] },
    ]);
    const tall = within(screen.getByRole('group', { name: '“tall” is offered under' }));
    await user.click(tall.getByRole('checkbox', { name: 'still' }));
    const offered = (kind: string) =>
      readForm([parent, field], { kind })
        .options.get('size')
        ?.map(({ value }) => value);
    expect([offered('still'), offered('clip')]).toEqual([['wide'], ['wide', 'tall']]);
    await user.selectOptions(screen.getByRole('combobox', { name: 'The choices depend on' }), 'Nothing: all are always offered');
    expect(field).not.toHaveProperty('parent');
    expect(field.options).toEqual([{ value: 'wide' }, { value: 'tall' }]);
  });
});
