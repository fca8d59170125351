import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { readForm, type Answers, type FormItem } from '@zesting/core';
import { useState } from 'react';
import { LANGUAGES, LanguageContext } from '../language/language';
import { AskedItems } from './asked-items';

const items: FormItem[] = [
  { key: 'kind', kind: 'one_of', label: 'Kind', options: [{ value: 'still' }, { value: 'clip', label: 'A clip' }] },
  { key: 'head', kind: 'section', label: 'The clip', shownIf: { field: 'kind', is: 'is', value: 'clip' } },
  { key: 'seconds', kind: 'number', label: 'Seconds', unit: 's', needed: true },
  { key: 'where', kind: 'several_of', label: 'Where', options: [{ value: 'feed' }, { value: 'blog' }, { value: 'mail' }] },
  { key: 'sure', kind: 'yes_no', label: 'Sure', needed: true },
];
let told: Answers = {};
const tell = (answers: Answers): Answers => (told = answers);

function Page({ problems = {} }: { problems?: Record<string, string> }) {
  const [answers, setAnswers] = useState<Answers>({});
  const nothing = () => undefined;
  return (
    <AskedItems
      items={items}
      answers={answers}
      problems={problems}
      onAnswer={(key, answer) => setAnswers(tell({ ...answers, [key]: answer }))}
      todayOn="2027-03-01"
      earliestOn={null}
      noticeOn={null}
      files={{}}
      uploadTo={null}
      onFile={nothing}
      onUnderWay={nothing}
    />
  );
}

describe('a form that is filled in', () => {
  it('shows a section once its condition holds, and hides it again', async () => {
    const user = userEvent.setup();
    render(<Page />);
    expect(screen.queryByText('The clip')).toBeNull();
    await user.click(screen.getByRole('radio', { name: 'A clip' }));
    await user.type(screen.getByLabelText(/^Seconds/), '1,5');
    expect(told).toEqual({ kind: 'clip', seconds: '1.5' });
    await user.click(screen.getByRole('button', { name: 'Take the choice back' }));
    expect(screen.queryByText('The clip')).toBeNull();
    expect(readForm(items, told).answers).toEqual({});
  });

  it('keeps several choices in the order of the form, whatever the order of the clicks', async () => {
    const user = userEvent.setup();
    render(<Page />);
    await user.click(screen.getByRole('radio', { name: 'A clip' }));
    const where = within(screen.getByRole('group', { name: 'Where' }));
    for (const name of ['mail', 'feed', 'blog']) await user.click(where.getByRole('checkbox', { name }));
    await user.click(where.getByRole('checkbox', { name: 'blog' }));
    expect(told['where']).toEqual(['feed', 'mail']);
  });

  it('says what is wrong at its group, in the form’s language', async () => {
    const user = userEvent.setup();
    render(
      <LanguageContext value={LANGUAGES.de}>
        <Page problems={{ sure: 'Das wird gebraucht.' }} />
      </LanguageContext>,
    );
    await user.click(screen.getByRole('radio', { name: 'A clip' }));
    const group = screen.getByRole('group', { name: 'Sure (nötig)' });
    expect(group).toHaveAccessibleDescription('Das wird gebraucht.');
    expect(within(group).getByRole('radio', { name: 'Ja' })).toBeInvalid();
    expect(within(group).getByRole('radio', { name: 'Nein' })).toBeVisible();
  });
});
