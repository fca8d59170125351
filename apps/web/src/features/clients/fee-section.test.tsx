import { screen } from '@testing-library/react';
import type { AgreedAmountsShape } from '@zesting/contract';
import { FeeSection } from './fee-section';
import { Refusal, showServed, type Answer } from '../../../test-support/served';

let times = 0;
/** A client of its own each time: what is typed and not saved is kept. */
const show = (fee: AgreedAmountsShape, put: Answer = {}) => {
  const client = { id: `c${++times}` } as Parameters<typeof FeeSection>[0]['client']; // as much of one as is looked at
  return showServed(<FeeSection client={client} />, { [`GET /clients/${client.id}/fee`]: fee, [`PUT /clients/${client.id}/fee`]: put });
};
const agreed = { agreed: [{ fromOn: '2027-01-01', amount: 125_050 }], currency: 'GBP', version: 3 };

describe('a fee', () => {
  it('is typed as people write amounts; what is no amount is said, and leaves what was there', async () => {
    const { user, sent } = show(agreed);
    const amount = await screen.findByLabelText(/^Fee of a month \(GBP\)/);
    expect(amount).toHaveValue('1,250.50');
    await user.clear(amount);
    await user.type(amount, '12.3456');
    expect(screen.getByText('This is no amount. Try 1,250.50.')).toBeVisible();
    await user.clear(amount);
    await user.type(amount, '1.300,5');
    expect(screen.queryByText(/This is no amount/)).toBeNull();
    await user.tab();
    expect(amount).toHaveValue('1,300.50');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(sent('PUT')).toMatchObject([{ body: { agreed: [{ fromOn: '2027-01-01', amount: 130_050 }] }, version: '3' }]);
  });

  it('holds from the first of the month that is typed', async () => {
    const { user, sent } = show({ agreed: [], currency: 'JPY', version: 0 });
    await user.click(await screen.findByRole('button', { name: 'Agree on it' }));
    await user.type(screen.getByLabelText(/^Fee of a month \(JPY\)/), '120000');
    const from = screen.getByLabelText(/^From/);
    await user.clear(from);
    await user.type(from, '17/5/2027');
    expect(await screen.findByText('From May 2027 on')).toBeVisible();
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(sent('PUT')).toMatchObject([{ body: { agreed: [{ fromOn: '2027-05-01', amount: 120_000 }] }, version: '0' }]);
  });

  it('somebody else agreed on it meanwhile: both are shown', async () => {
    const theirs = { ...agreed, agreed: [{ fromOn: '2027-01-01', amount: 99 }], version: 4 };
    const { user } = show(agreed, new Refusal(412, { code: 'http.changed_meanwhile', theirs }));
    const amount = await screen.findByLabelText(/^Fee of a month/);
    await user.clear(amount);
    await user.type(amount, '7');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByRole('dialog', { name: 'Somebody else saved this meanwhile' })).toBeVisible();
  });
});
