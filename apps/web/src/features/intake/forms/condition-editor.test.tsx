import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { readForm, type Condition, type FormItem } from '@zesting/core';
import { useState } from 'react';
import { nth } from '../../../../test-support/nth';
import { ConditionEditor, firstTest } from './condition-editor';

const items: FormItem[] = [
  { key: 'head', kind: 'section', label: 'A head' },
  { key: 'about', kind: 'short', label: 'About' },
  { key: 'kind', kind: 'one_of', label: 'Kind', options: [{ value: 'still' }, { value: 'clip', label: 'A clip' }] },
  { key: 'paid', kind: 'yes_no', label: 'Paid for' },
  { key: 'seconds', kind: 'number', label: 'Seconds' },
];
let now: Condition | undefined;

function Edited({ first }: { first: Condition }) {
  const [condition, setCondition] = useState<Condition | undefined>(first);
  const change = (next: Condition | undefined) => {
    now = next;
    setCondition(next);
  };
  return condition ? <ConditionEditor label="When" condition={condition} items={items} onChange={change} /> : <p>Always</p>;
}

function show(first: Condition) {
  render(<Edited first={first} />);
  const lists = (name: string) => screen.getAllByRole('combobox', { name });
  return { user: userEvent.setup(), lists, press: (name: string | RegExp) => screen.getAllByRole('button', { name }) };
}

describe('a condition', () => {
  it('begins with the first choice there is, and without one with whether a question is answered', () => {
    expect(firstTest(items)).toEqual({ field: 'kind', is: 'is', value: 'still' });
    expect(firstTest(items.slice(0, 2))).toEqual({ field: 'about', is: 'answered' });
    expect(firstTest(items.slice(0, 1))).toBeUndefined();
  });

  it('keeps a test that suits another question, and takes its value from what that one offers', async () => {
    const { user, lists } = show({ field: 'kind', is: 'is', value: 'still' });
    await user.selectOptions(nth(lists('Value'), 0), 'A clip');
    expect(now).toEqual({ field: 'kind', is: 'is', value: 'clip' });
    await user.selectOptions(nth(lists('Question'), 0), 'Paid for');
    expect(now).toEqual({ field: 'paid', is: 'is', value: 'yes' });
    await user.selectOptions(nth(lists('Test'), 0), 'is answered');
    expect(now).toEqual({ field: 'paid', is: 'answered' });
    expect(screen.queryByRole('combobox', { name: 'Value' })).toBeNull();
  });

  it('is joined to several levels, means what stands there, and comes apart again', async () => {
    const { user, lists, press } = show({ field: 'kind', is: 'is', value: 'clip' });
    await user.click(nth(press('Another condition'), 0));
    await user.selectOptions(nth(lists('Question'), 1), 'Paid for');
    await user.click(nth(press('A group of conditions'), 0));
    await user.click(nth(press('Another in this group'), 0));
    await user.selectOptions(nth(lists('Value'), 3), 'A clip');
    expect(now).toEqual({
      all: [
        { field: 'kind', is: 'is', value: 'clip' },
        { field: 'paid', is: 'is', value: 'yes' },
        {
          any: [
            { field: 'kind', is: 'is', value: 'still' },
            { field: 'kind', is: 'is', value: 'clip' },
          ],
        },
      ],
    });
    await user.selectOptions(nth(lists('How the conditions are joined'), 0), 'any of these holds');
    const shown: FormItem[] = [
      ...items.slice(1, 4),
      { key: 'seconds', kind: 'number', label: 'Seconds', ...(now ? { shownIf: now } : {}) },
    ];
    const isAsked = (answers: Record<string, string>) => readForm(shown, answers).items.some(({ key }) => key === 'seconds');
    expect([isAsked({ paid: 'yes' }), isAsked({ kind: 'still' }), isAsked({ about: 'x' })]).toEqual([true, true, false]);

    // the last of a group takes the group with it, and one alone stands without a frame
    for (let left = 0; left < 2; left += 1) await user.click(nth(press('Take this condition out'), -1));
    await user.click(nth(press('Take this condition out'), -1));
    expect(now).toEqual({ field: 'kind', is: 'is', value: 'clip' });
    expect(screen.queryByRole('combobox', { name: 'How the conditions are joined' })).toBeNull();
    await user.click(nth(press('Take this condition out'), 0));
    expect(screen.getByText('Always')).toBeInTheDocument();
  });

  it('says of a question that is gone that it is not there, and lets it be replaced', async () => {
    const { user, lists } = show({ field: 'gone', is: 'is', value: 'x' });
    expect(within(nth(lists('Question'), 0)).getByRole('option', { name: 'gone (not there)' })).toBeInTheDocument();
    await user.selectOptions(nth(lists('Question'), 0), 'Kind');
    expect(now).toEqual({ field: 'kind', is: 'is', value: 'still' });
  });
});
