import { screen, waitFor, within } from '@testing-library/react';
import { nth } from '../../../test-support/nth';
import { Refusal, showServed, type Answer } from '../../../test-support/served';
import { DatesDialog } from './dates-dialog';

const entry = (line: number, part: object = {}) => ({
  line,
  text: `line ${line}`,
  on: '2027-04-03',
  until: '2027-04-03',
  title: `Title ${line}`,
  kind: 'event',
  doubt: null,
  twin: null,
  ...part,
});
const entries = [
  entry(1),
  entry(2, { on: null, until: null, doubt: 'no_day' }),
  entry(3, { twin: 'Spring fair' }),
  entry(4, { title: '', doubt: 'no_title' }),
];
const onClose = jest.fn();

async function read(answers: Record<string, Answer>) {
  const shown = showServed(<DatesDialog onClose={onClose} />, answers, '/?client=BBB');
  const { user } = shown;
  await user.type(await screen.findByLabelText(/^Lines/), '3/4 fair');
  await user.click(screen.getByRole('button', { name: 'Read them' }));
  return shown;
}
const ticks = (name: string) => screen.getAllByRole('checkbox', { name }).map((box) => (box as HTMLInputElement).checked);

describe('a month of dates', () => {
  afterEach(() => onClose.mockClear());

  it('puts what is certain, leaves out what is there already or has no day, until somebody corrects it', async () => {
    const { sent, user } = await read({
      'POST /clients/c2/dates/read': { entries, isAmbiguous: false },
      'POST /clients/c2/dates': { markers: 3, requests: 1 },
    });
    await screen.findByRole('list', { name: 'Dates' });
    expect(screen.queryByRole('group', { name: 'Order of figures' })).toBeNull();
    expect(ticks('on the calendar')).toEqual([true, false, false, false]);
    expect(ticks('as a request')).toEqual([false, false, false, false]);
    expect(screen.getByText('There is already: Spring fair')).toBeInTheDocument();

    await user.click(nth(screen.getAllByRole('checkbox', { name: 'on the calendar' }), 1));
    await user.click(screen.getByRole('button', { name: 'Put 2 lines' }));
    expect(screen.getByRole('alert')).toHaveTextContent('Line 2 needs a day and words, or leave it out.');
    expect(sent('POST')).toHaveLength(1);

    await user.type(screen.getByRole('textbox', { name: 'Day of line 2' }), '12 May 2027{Tab}');
    await user.type(screen.getByRole('textbox', { name: 'Words of line 4' }), '  Open house ');
    const last = within(nth(screen.getAllByRole('listitem'), -1));
    await user.selectOptions(last.getByRole('combobox', { name: 'Kind of line 4' }), 'blackout');
    await user.click(last.getByRole('checkbox', { name: 'as a request' }));
    await user.click(screen.getByRole('button', { name: 'Put 3 lines' }));
    await waitFor(() => expect(onClose).toHaveBeenCalled());
    expect((sent('POST')[1]?.body as { entries: object[] }).entries).toEqual([
      { on: '2027-04-03', until: '2027-04-03', title: 'Title 1', kind: 'event', isMarker: true, isRequest: false, routeId: null },
      { on: '2027-05-12', until: '2027-05-12', title: 'Title 2', kind: 'event', isMarker: true, isRequest: false, routeId: null },
      { on: '2027-04-03', until: '2027-04-03', title: 'Open house', kind: 'blackout', isMarker: false, isRequest: true, routeId: null },
    ]);
  });

  it('asks which figure is the day where nothing tells, and reads again by the answer', async () => {
    const { sent, user } = await read({
      'POST /clients/c2/dates/read': ({ body }) => {
        const { order } = body as { order?: string };
        return { entries: [entry(1, order === 'month_first' ? { on: '2027-03-04', until: '2027-03-04' } : {})], isAmbiguous: true };
      },
    });
    await user.click(await screen.findByRole('button', { name: 'The second: 4 March' }));
    await waitFor(() => expect(sent('POST')).toHaveLength(2));
    expect(sent('POST')[1]?.body).toEqual({ text: '3/4 fair', order: 'month_first' });
    await waitFor(() => expect((screen.getByRole('textbox', { name: 'Day of line 1' }) as HTMLInputElement).value).toMatch(/4 Mar/));
  });

  it('says what went wrong and keeps the lines', async () => {
    const { user } = await read({ 'POST /clients/c2/dates/read': new Refusal(500, { code: 'http.unexpected' }) });
    expect(await screen.findByText(/Something went wrong/)).toBeInTheDocument();
    expect(screen.getByLabelText(/^Lines/)).toHaveValue('3/4 fair');
    await user.clear(screen.getByLabelText(/^Lines/));
    await user.click(screen.getByRole('button', { name: 'Read them' }));
    expect(screen.getByText('Paste the lines first.')).toBeInTheDocument();
  });

  it('puts what a file says below what was typed, and says of one that cannot be read that it cannot', async () => {
    let answer: object = { text: '2027-04-03 Spring fair\n' };
    const { user } = showServed(<DatesDialog onClose={onClose} />, { 'POST /clients/c2/dates/file': () => answer }, '/?client=BBB');
    const lines = await screen.findByLabelText(/^Lines/);
    await user.type(lines, 'Mon 7 Dec talk');
    const file = new File(['BEGIN:VCALENDAR'], 'dates.ics', { type: 'text/calendar' });
    await user.upload(screen.getByLabelText('Or a file'), file);
    await waitFor(() => expect(lines).toHaveValue('Mon 7 Dec talk\n2027-04-03 Spring fair'));
    answer = new Refusal(422, { code: 'table.unreadable' });
    await user.upload(screen.getByLabelText('Or a file'), file);
    expect(await screen.findByText(/no table that can be read/)).toBeInTheDocument();
    expect(lines).toHaveValue('Mon 7 Dec talk\n2027-04-03 Spring fair');
  });
});
