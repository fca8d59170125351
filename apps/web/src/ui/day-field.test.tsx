import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { DayField, type DayProps } from './day-field';

/** 9 March 2027 is a Tuesday. */
const TODAY = '2027-03-09';

function Asked({ first = '', ...props }: { first?: string } & Partial<DayProps>) {
  const [on, setOn] = useState(first);
  return (
    <>
      <DayField label="Day" todayOn={TODAY} {...props} value={on} onChange={setOn} />
      <output>{on || 'none'}</output>
    </>
  );
}

function show(props: { first?: string } & Partial<DayProps> = {}) {
  render(<Asked {...props} />);
  const field = screen.getByRole('textbox', { name: 'Day' });
  const user = userEvent.setup();
  const type = async (words: string) => {
    await user.clear(field);
    await user.type(field, words);
    await user.tab();
  };
  return { field, type, value: () => screen.getByRole('status').textContent };
}

describe('a day that is typed', () => {
  it.each([
    ['16/3', '2027-03-16', 'Tue 16 Mar 2027'],
    ['2027-12-24', '2027-12-24', 'Fri 24 Dec 2027'],
    ['tomorrow', '2027-03-10', 'Wed 10 Mar 2027'],
    ['in 3 days', '2027-03-12', 'Fri 12 Mar 2027'],
  ])('%s is %s, and reads %s once it is left', async (words, on, shown) => {
    const { field, type, value } = show();
    await type(words);
    await waitFor(() => expect(value()).toBe(on));
    await waitFor(() => expect(field).toHaveValue(shown));
  });

  it('is read also where it is left before what reads words has come', async () => {
    const { field, value } = show();
    fireEvent.change(field, { target: { value: '13 Mar 2027' } });
    fireEvent.blur(field);
    await waitFor(() => expect(value()).toBe('2027-03-13'));
    expect(field).toHaveValue('Sat 13 Mar 2027');
  });

  it('says what is no day, and is none then', async () => {
    const { field, type, value } = show({ first: '2027-03-16' });
    await type('31/2');
    await waitFor(() => expect(field).toHaveAccessibleDescription(/This is no day/));
    expect(value()).toBe('none');
    expect(field).toHaveValue('31/2');
  });

  it('says why somebody does not work on it', () => {
    const { field } = show({ first: '2027-03-29', off: (on) => (on === '2027-03-29' ? 'Easter Monday for the client' : undefined) });
    expect(field).toHaveAccessibleDescription('Easter Monday for the client');
  });
});
