import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { PatternFields } from './pattern-fields';

function Edited({ first, onRule }: { first: string; onRule: (rule: string) => void }) {
  const [rule, setRule] = useState(first);
  onRule(rule);
  return <PatternFields rule={rule} error={undefined} onChange={setRule} />;
}

function show(first: string) {
  let rule = first;
  render(<Edited first={first} onRule={(next) => (rule = next)} />);
  return { user: userEvent.setup(), rule: () => rule };
}
const press = (name: string) => screen.getByRole('button', { name });

describe('the days of a rule', () => {
  it('are weekdays, at least one, in their order, every so many weeks', async () => {
    const { user, rule } = show('FREQ=WEEKLY;BYDAY=TU');
    expect(press('Tuesday')).toBeDisabled(); // the last one stays
    await user.click(press('Sunday'));
    await user.click(press('Monday'));
    await user.selectOptions(screen.getByLabelText('How often'), 'every other week');
    expect(rule()).toBe('FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TU,SU');
    await user.click(press('Tuesday'));
    expect(rule()).toBe('FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,SU');
  });

  it('are a weekday of the month, or a date; short months are told', async () => {
    const { user, rule } = show('FREQ=WEEKLY;BYDAY=TU');
    await user.click(press('Nth weekday'));
    expect(rule()).toBe('FREQ=MONTHLY;BYDAY=-1FR');
    await user.selectOptions(screen.getByLabelText('Which'), 'The second');
    await user.selectOptions(screen.getByLabelText('Weekday'), 'Monday');
    expect(rule()).toBe('FREQ=MONTHLY;BYDAY=2MO');
    await user.click(press('Date'));
    await user.selectOptions(screen.getByLabelText('Date'), 'The 31.');
    await user.selectOptions(screen.getByLabelText('How often'), 'every 6 months');
    expect(rule()).toBe('FREQ=MONTHLY;INTERVAL=6;BYMONTHDAY=31');
    expect(screen.getByText(/Months without that date are left out/)).toBeInTheDocument();
  });

  it('that are no usual pattern stay as they are written, and an interval that is not offered too', async () => {
    const { user, rule } = show('FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO');
    expect(screen.getByLabelText('Rule')).toHaveValue('FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO');
    await user.click(press('Weekdays'));
    expect(rule()).toBe('FREQ=WEEKLY;BYDAY=TU');
    await user.click(press('Own rule'));
    await user.clear(screen.getByLabelText('Rule'));
    await user.type(screen.getByLabelText('Rule'), 'FREQ=WEEKLY;INTERVAL=5;BYDAY=WE');
    await user.click(press('Weekdays'));
    expect(screen.getByLabelText('How often')).toHaveDisplayValue('every 5 weeks');
  });
});
