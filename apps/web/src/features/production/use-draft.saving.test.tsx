import { useQuery, useQueryClient } from '@tanstack/react-query';
import { act, screen, waitFor } from '@testing-library/react';
import type { PieceShape } from '@zesting/contract';
import { useEffect } from 'react';
import { pieceKeys, pieceQuery } from '../../api/production';
import { forgetKept } from '../../lib/kept';
import { showServed } from '../../../test-support/served';
import { useDraft } from './use-draft';

/** As much of a piece as its draft looks at. */
const piece = (copy: string, version: number) =>
  ({
    id: 'p1',
    content: { version, shared: { copy, disclosure: '', isLaidOut: false, media: [], texts: [], state: 'open' }, channels: [] },
  }) as unknown as PieceShape;

const drawn: string[] = [];

function Draft({ of }: { of: PieceShape }) {
  const { draft, change, save } = useDraft(of);
  useEffect(() => void drawn.push(draft.shared.copy));
  return (
    <>
      <p>{`Copy: ${draft.shared.copy}`}</p>
      <button onClick={() => change({ ...draft, shared: { ...draft.shared, copy: 'Rye' } })}>Write</button>
      <button onClick={() => void save()}>Save</button>
    </>
  );
}

function Page() {
  const queries = useQueryClient();
  const { data } = useQuery(pieceQuery('p1'));
  return (
    <>
      <button onClick={() => void queries.invalidateQueries({ queryKey: pieceKeys.one('p1') })}>Ask anew</button>
      {data && <Draft of={data} />}
    </>
  );
}

describe('a draft that is saved', () => {
  afterEach(() => act(() => forgetKept()));

  it('stands as it was saved, also where an answer from before is still on its way', async () => {
    let arrive = (_: object) => {};
    let asked = 0;
    const { user, sent } = showServed(<Page />, {
      'GET /pieces/p1': () => (++asked === 1 ? piece('Buns', 1) : new Promise((resolve) => (arrive = resolve))),
      'PUT /pieces/p1/content': piece('Rye', 2),
    });
    await user.click(await screen.findByRole('button', { name: 'Write' }));
    await user.click(screen.getByRole('button', { name: 'Ask anew' })); // as after a live event
    await waitFor(() => expect(asked).toBe(2));
    drawn.length = 0;
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(sent('PUT')).toHaveLength(1));
    await act(async () => {
      arrive(piece('Buns', 1));
      await new Promise((resolve) => setTimeout(resolve, 50));
    });
    expect(screen.getByText('Copy: Rye')).toBeVisible();
    expect(new Set(drawn)).toEqual(new Set(['Rye'])); // not for a moment what was there before
  });
});
