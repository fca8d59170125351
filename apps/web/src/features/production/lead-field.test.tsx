import { screen, waitFor } from '@testing-library/react';
import type { PieceShape } from '@zesting/contract';
import { showServed } from '../../../test-support/served';
import { LeadField } from './lead-field';

const person = (id: string, name: string, role = 'staff', active = true) => ({ id, name, role, active });
const show = (more: Partial<PieceShape>) =>
  showServed(
    <LeadField piece={{ id: 'p1', version: 7, leadId: null, lead: null, canManage: true, ...more } as unknown as PieceShape} />, // as much of one as it looks at
    {
      'GET /people': [person('dana', 'Dana', 'manager'), person('noor', 'Noor', 'freelance'), person('gone', 'Gone', 'staff', false)],
      'PATCH /pieces/p1': {},
    },
  );

describe('who answers for a piece', () => {
  it('is named for it, over the state that was seen; freelance creators and who has left are not offered', async () => {
    const { user, sent } = show({ lead: { personId: 'ivo', name: 'Ivo' } });
    const field = screen.getByLabelText('Answers for it');
    await screen.findByRole('option', { name: 'Dana' });
    expect(screen.getAllByRole('option').map(({ textContent }) => textContent)).toEqual(['Ivo (client’s)', 'Dana']);
    await user.selectOptions(field, 'Dana');
    await waitFor(() => expect(sent('PATCH').map(({ body, version }) => [body, version])).toEqual([[{ leadId: 'dana' }, '7']]));
  });

  it('says where whoever was named has left', async () => {
    show({ leadId: 'gone' });
    expect(await screen.findByRole('option', { name: 'somebody who has left', selected: true })).toBeInTheDocument();
  });

  it('is only read by who does not manage', () => {
    show({ canManage: false, lead: { personId: 'ivo', name: 'Ivo' } });
    expect(screen.queryByRole('combobox')).toBeNull();
    expect(screen.getByText('Ivo', { exact: false })).toBeVisible();
  });
});
