import { screen, waitFor, within } from '@testing-library/react';
import { Refusal, showServed, type Answer } from '../../../test-support/served';
import { TablePage } from './table-page';

const form = {
  formId: 'f1',
  title: 'Ask',
  todayOn: '2027-03-01',
  language: 'en',
  items: [
    { key: 'about', kind: 'short', label: 'About', needed: true, serves: 'title' },
    { key: 'wish', kind: 'day', label: 'When', serves: 'wish_date' },
  ],
};
const table = {
  heads: ['Topic', 'Day', 'Weather'],
  rows: [
    ['Oven', '3/4/2027', 'warm'],
    ['', 'never', ''],
  ],
};

async function open(answers: Record<string, Answer> = {}) {
  const shown = showServed(
    <TablePage />,
    { 'GET /requests/taken-down/c2': [form], 'POST /clients/c2/table/read': table, ...answers },
    '/requests/table?client=BBB',
  );
  await screen.findByRole('option', { name: 'Ask' });
  await shown.user.upload(screen.getByLabelText('File'), new File(['x'], 'ideas.csv', { type: 'text/csv' }));
  await screen.findByRole('heading', { name: 'What the columns are' });
  return shown;
}
const problems = () =>
  within(screen.getByRole('list', { name: 'Problems' }))
    .getAllByRole('listitem')
    .map(({ textContent }) => textContent);

describe('requests from a table', () => {
  it('are tried as columns are matched, and only what can be taken is sent once that is wanted', async () => {
    const { sent, user } = await open({ 'POST /clients/c2/table': { requests: 1 } });
    expect(screen.getByRole('combobox', { name: 'Topic becomes' })).toHaveValue('field:about');
    expect(screen.getByRole('heading', { name: '2 lines: 1 can be taken, 1 cannot' })).toBeInTheDocument();
    expect(problems()).toEqual(['Line 3, “About”: This is needed.', 'Line 3, “When”: This is not a date. “never”']);
    await user.click(screen.getByRole('button', { name: 'The second: 4 March' }));
    expect(screen.getByRole('button', { name: 'Take 1 request' })).toBeDisabled();
    await user.click(screen.getByRole('checkbox', { name: 'Leave out the line that cannot be taken' }));
    await user.click(screen.getByRole('button', { name: 'Take 1 request' }));
    await waitFor(() => expect(sent('POST')).toHaveLength(2));
    expect(sent('POST')[1]?.body).toEqual({
      formId: 'f1',
      columns: ['field:about', 'field:wish', ''],
      rows: [{ cells: ['Oven', '3/4/2027', 'warm'] }],
      askedBy: 'Max',
      order: 'month_first',
    });
  });

  it('give a question to one column alone, and say once what no column says', async () => {
    const { user } = await open();
    await user.selectOptions(screen.getByRole('combobox', { name: 'Weather becomes' }), 'When');
    expect(screen.getByRole('combobox', { name: 'Day becomes' })).toHaveValue('');
    await user.selectOptions(screen.getByRole('combobox', { name: 'Topic becomes' }), 'left out');
    expect(problems()).toEqual(['No column says “About”, which the form needs.', 'Line 2, “When”: This is not a date. “warm”']);
    expect(screen.getByRole('button', { name: 'Nothing can be taken' })).toBeDisabled();
  });

  it('tell what the server found wrong by the line of the file', async () => {
    const { user } = await open({
      'POST /clients/c2/table': new Refusal(422, {
        code: 'table.rows_wrong',
        problems: [{ line: 2, about: 'field:wish', cell: '3/4/2027', problem: 'in_the_past' }],
      }),
    });
    await user.click(screen.getByRole('checkbox', { name: /^Leave out/ }));
    await user.click(screen.getByRole('button', { name: 'Take 1 request' }));
    expect(await screen.findByText('Some lines of the table are not right.')).toBeInTheDocument();
    expect(problems()).toEqual(['Line 2, “When”: This day has passed. “3/4/2027”']);
  });
});
