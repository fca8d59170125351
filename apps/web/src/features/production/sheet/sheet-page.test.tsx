import { act, screen, waitFor, within } from '@testing-library/react';
import type { SheetRowShape } from '@zesting/contract';
import { showServed, type Answer } from '../../../../test-support/served';
import { sheetRow } from '../../../../test-support/sheet-row';
import { forgetKept } from '../../../lib/kept';
import { SheetPage } from './sheet-page';

const person = (id: string, name: string, skills: Record<string, number>) => ({ id, name, role: 'staff', active: true, skills });
const show = (rows: readonly SheetRowShape[], more: Record<string, Answer> = {}, at = '/production/sheet') =>
  showServed(
    <SheetPage />,
    {
      'GET /pieces/sheet': { rows: [...rows], total: rows.length, leftOut: 0 },
      'GET /people': [person('piet', 'Piet', { design: 2 }), person('noor', 'Noor', { write: 2 })],
      'GET /campaigns': { campaigns: [] },
      ...more,
    },
    at,
  );
const titles = () => screen.getAllByRole('textbox', { name: /^Title of/ }).map((input) => (input as HTMLInputElement).value);

describe('the sheet', () => {
  afterEach(() => act(forgetKept));

  it('is ordered by its heads, either way, and put together with what each part comes to', async () => {
    const rows = [
      sheetRow('1', { leftMinutes: 60, aimOn: '2027-03-20', danger: 'overdue' }),
      sheetRow('2', { leftMinutes: 30, aimOn: '2027-03-10', formatName: 'Clip' }),
      sheetRow('3', { leftMinutes: 90, aimOn: null }),
    ];
    const { user } = show(rows);
    expect(await screen.findByText('3 pieces · 1 late · 3 h left')).toBeVisible();
    expect(titles()).toEqual(['Piece 2', 'Piece 1', 'Piece 3']);
    await user.click(screen.getByRole('button', { name: 'Aim' }));
    expect(titles()).toEqual(['Piece 1', 'Piece 2', 'Piece 3']);
    expect(screen.getByRole('columnheader', { name: 'Aim' })).toHaveAttribute('aria-sort', 'descending');
    await user.click(screen.getByRole('button', { name: 'Left' }));
    expect(titles()).toEqual(['Piece 2', 'Piece 1', 'Piece 3']);
    await user.selectOptions(screen.getByLabelText('Put together by'), 'format');
    const lines = screen.getAllByRole('row').map((row) => row.textContent);
    expect(lines.filter((line) => line.includes('piece'))).toEqual([
      'Clip 1 piece · 30 min left',
      'Still 2 pieces · 1 late · 2 h 30 min left',
    ]);
  });

  it('saves what is put in, as it was put, and says who can do a step', async () => {
    const { user, sent } = show([sheetRow('1'), sheetRow('2')], { 'PUT /pieces/sheet': { saved: ['1'], refused: [] } });
    const doer = await screen.findByLabelText('Who has of Piece 1');
    expect(
      within(await within(doer).findByRole('group', { name: 'Can do write' })).getByRole('option', { name: 'Noor' }),
    ).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Save' })).toBeDisabled();
    await user.selectOptions(doer, 'noor');
    await user.type(screen.getByLabelText('Title of Piece 1'), ', again');
    await user.click(screen.getByRole('button', { name: 'Save 1 line' }));
    await waitFor(() =>
      expect(sent('PUT').map(({ body }) => body)).toEqual([
        { changes: [{ pieceId: '1', version: 3, title: 'Piece 1, again', doer: { stepId: 'write-1', version: 2, personId: 'noor' } }] },
      ]),
    );
    await waitFor(() => expect(screen.getByRole('button', { name: 'Save' })).toBeDisabled());
  });

  it('keeps what was refused, and asks whether it stays', async () => {
    const refused = [{ pieceId: '1', code: 'http.changed_meanwhile' }];
    let version = 3;
    const { user, sent } = show([], {
      'GET /pieces/sheet': () => ({ rows: [sheetRow('1', { version }), sheetRow('2')], total: 2, leftOut: 0 }),
      'PUT /pieces/sheet': () => {
        version = 4;
        return { saved: ['2'], refused };
      },
    });
    await user.selectOptions(await screen.findByLabelText('Pillar of Piece 1'), 'p1');
    await user.selectOptions(screen.getByLabelText('Pillar of Piece 2'), 'p1');
    await user.click(screen.getByRole('button', { name: 'Save 2 lines' }));
    const behind = await screen.findByRole('list', { name: 'Changed by somebody else meanwhile' });
    expect(behind).toHaveTextContent('Somebody else changed “Piece 1” meanwhile.');
    expect(screen.getByLabelText('Pillar of Piece 1')).toHaveValue('p1');
    await user.click(within(behind).getByRole('button', { name: 'Keep what I put in' }));
    await user.click(screen.getByRole('button', { name: 'Save 1 line' }));
    await waitFor(() => expect(sent('PUT').at(-1)?.body).toEqual({ changes: [{ pieceId: '1', version: 4, pillarId: 'p1' }] }));
  });

  it('puts one value into all that are chosen, which can be taken back', async () => {
    const { user, sent } = show([sheetRow('1'), sheetRow('2', { purpose: 'buy' }), sheetRow('3')]);
    await user.click(await screen.findByRole('checkbox', { name: 'Choose Piece 2' }));
    await user.click(screen.getByRole('checkbox', { name: 'Choose Piece 3' }));
    const many = screen.getByRole('group', { name: 'Chosen pieces' });
    expect(many).toHaveTextContent('2 chosen · 3 h left');
    await user.selectOptions(within(many).getByLabelText('Purpose'), 'as in the first');
    expect(await screen.findByLabelText('Purpose of Piece 3')).toHaveValue('buy');
    expect(screen.getByLabelText('Purpose of Piece 1')).toHaveValue('');
    expect(screen.getByRole('status')).toHaveTextContent('1 cell filled. Nothing is saved yet.');
    await user.click(screen.getByRole('button', { name: 'Take it back' }));
    expect(screen.getByLabelText('Purpose of Piece 3')).toHaveValue('');
    await user.selectOptions(within(many).getByLabelText('With'), 'piet');
    expect(screen.getByRole('button', { name: 'Save 2 lines' })).toBeEnabled();
    await user.click(screen.getByRole('button', { name: 'Leave as it was' }));
    expect(screen.getByLabelText('Who has of Piece 2')).toHaveValue('');
    expect(sent('PUT')).toEqual([]);
  });

  it('shows the columns that are chosen, and takes away what it shows', async () => {
    const { user } = show([sheetRow('1', { campaignNames: ['Spring'] })]);
    expect((await screen.findAllByRole('columnheader')).map((head) => head.textContent)).toContain('Danger');
    await user.click(screen.getByRole('button', { name: 'Columns' }));
    await user.click(await screen.findByRole('menuitemcheckbox', { name: 'Campaign' }));
    await user.keyboard('{Escape}');
    expect(screen.getByRole('columnheader', { name: 'Campaign' })).toBeVisible();
    expect(screen.getByText('Spring')).toBeVisible();
    const { href } = screen.getByRole('link', { name: 'As a spreadsheet' }) as HTMLAnchorElement;
    expect(decodeURIComponent(href)).toMatch(
      /\/api\/pieces\/sheet\/xlsx\?shown=open&columns=client,title,format,pillar,campaign,.*&by=aim/,
    );
  });

  it('says how much is not in it', async () => {
    show([], { 'GET /pieces/sheet': { rows: [sheetRow('1')], total: 1200, leftOut: 3 } });
    expect(await screen.findByText(/Only 1 piece of 1200 are here/)).toBeVisible();
  });
});
