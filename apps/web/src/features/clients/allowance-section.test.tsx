import { screen, waitFor } from '@testing-library/react';
import type { ClientPageShape } from '@zesting/contract';
import { showServed } from '../../../test-support/served';
import { AllowanceSection } from './allowance-section';

const client = { id: 'c1', version: 3, allowance: { hours: 20, formats: [{ formatId: 'gone', pieces: 2 }] } } as unknown as ClientPageShape; // what it looks at

describe('what a month includes', () => {
  it('is figures or nothing, and keeps what was agreed of a format that no route makes', async () => {
    const { sent, user } = showServed(<AllowanceSection client={client} />, { 'PATCH /clients/c1': { ...client, version: 4 } });
    const field = async (label: string) => screen.findByLabelText(label);
    await user.clear(await field('Hours of work a month'));
    await user.type(await field('Hours of work a month'), 'a3o0 h');
    expect(await field('Hours of work a month')).toHaveValue('30');
    await user.type(await field('Clip'), '99999');
    expect(await field('Clip')).toHaveValue('1000');
    await user.type(await field('Still'), 'x');
    expect(await field('A format that no route makes')).toHaveValue('2');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() =>
      expect(sent('PATCH').map(({ body, version }) => [body, version])).toEqual([
        [
          {
            allowance: {
              hours: 30,
              formats: [
                { formatId: 'gone', pieces: 2 },
                { formatId: 'f2', pieces: 1000 },
              ],
            },
          },
          '3',
        ],
      ]),
    );
  });
});
