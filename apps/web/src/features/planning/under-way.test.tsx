import { screen, waitFor, within } from '@testing-library/react';
import type { AlongPieceShape, RouteAlongShape, RoutePageShape, RouteStepBody } from '@zesting/contract';
import { showServed, type Answer } from '../../../test-support/served';
import { RoutePicture } from './route-picture';
import { StepFields } from './step-fields';
import { UnderWay } from './under-way';

const step = (key: string, after: string[], more: Partial<RouteStepBody> = {}): RouteStepBody => ({
  ...{ key, title: `Step ${key}`, kind: 'make', skill: 'write', spanDays: 2, effortMinutes: 60, after },
  ...more,
});
const route = (more: Partial<RoutePageShape> = {}): RoutePageShape => ({
  id: 'r1',
  name: 'Still',
  formatName: 'Still',
  roundsAllowed: null,
  steps: [],
  archivedAt: null,
  openPieces: 4,
  behindPieces: 2,
  version: 5,
  ...more,
});
const piece = (pieceId: string, more: Partial<AlongPieceShape> = {}): AlongPieceShape => ({
  pieceId,
  number: 1,
  title: `Piece ${pieceId}`,
  clientId: 'c1',
  changes: [],
  kept: [],
  aimOn: null,
  dangerBefore: 'fine',
  dangerAfter: 'fine',
  beginByBefore: null,
  beginByAfter: null,
  isAgainst: false,
  ...more,
});
const show = (along: Partial<RouteAlongShape>, taken: Answer = { pieces: [] }) =>
  showServed(<UnderWay route={route()} />, {
    'GET /routes/r1/along': { version: 5, pieces: [], unmoved: [], morePieces: 0, ...along },
    'POST /routes/r1/along': taken,
  });

describe('pieces under way of a route', () => {
  it('tells what would change of each, what stays, and what becomes of its dates; those left out stay', async () => {
    const { user, sent } = show(
      {
        pieces: [
          piece('p1', {
            changes: [
              { kind: 'added', title: 'Proof', fields: [], doerName: null },
              { kind: 'changed', title: 'Write', fields: ['days', 'checklist'], doerName: 'Sia' },
              { kind: 'left_out', title: 'Draw', fields: [], doerName: 'Fay' },
            ],
            kept: [{ title: 'Film', why: 'by_hand' }],
            dangerAfter: 'tight',
            beginByBefore: '2027-03-04',
            beginByAfter: '2027-02-26',
          }),
          piece('p2'),
          piece('p3', { isAgainst: true }),
        ],
        unmoved: ['p9'],
      },
      ({ body }) => ({
        pieces: (body as { pieceIds: string[] }).pieceIds.map((pieceId) => ({
          pieceId,
          problem: pieceId === 'p1' ? 'http.changed_meanwhile' : null,
        })),
      }),
    );
    await user.click(screen.getByRole('button', { name: 'See what would move' }));
    const dialog = await screen.findByRole('dialog', { name: 'Take along: Still' });
    expect(await within(dialog).findByText('“Proof” comes in, for nobody yet')).toBeVisible();
    expect(within(dialog).getByText('“Write”, which Sia has, changes its days, its checklist')).toBeVisible();
    expect(within(dialog).getByText('“Draw”, which Fay has, goes')).toBeVisible();
    expect(within(dialog).getByText('“Film” keeps what was changed by hand')).toBeVisible();
    expect(within(dialog).getByText(/Work must go on by Fri 26 Feb( 2027)? at the latest, instead of Thu 4 Mar/)).toBeVisible();
    expect(within(dialog).getByRole('checkbox', { name: /Piece p3/ })).toBeDisabled();
    await user.click(within(dialog).getByRole('checkbox', { name: /Piece p2/ }));
    await user.click(within(dialog).getByRole('button', { name: 'Take 1 piece along' }));
    expect(sent('POST').map(({ body }) => body)).toEqual([{ pieceIds: ['p1', 'p9'], version: 5 }]);
    // what could not be is said, and the dialog stays
    expect(await within(dialog).findByRole('alert')).toHaveTextContent('Not taken along');
  });

  it('where nothing would move they are counted as up to date', async () => {
    const { user, sent } = show(
      { unmoved: ['p1', 'p2'] },
      {
        pieces: [
          { pieceId: 'p1', problem: null },
          { pieceId: 'p2', problem: null },
        ],
      },
    );
    await user.click(screen.getByRole('button', { name: 'See what would move' }));
    await user.click(await screen.findByRole('button', { name: 'Count them as up to date' }));
    await waitFor(() => expect(sent('POST').map(({ body }) => body)).toEqual([{ pieceIds: ['p1', 'p2'], version: 5 }]));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });
});

describe('a route as a picture', () => {
  const steps = [step('a', []), step('b', ['a']), step('c', ['a'], { spanDays: 3 }), step('d', ['b', 'c'], { kind: 'check' })];

  it('stands in turn from left to right, side by side one below the other, and leads to the fields of a step', async () => {
    const { user } = showServed(
      <>
        <RoutePicture steps={steps} />
        {steps.map((one) => (
          <StepFields key={one.key} step={one} put={() => undefined} steps={[]} skills={[]} problem={undefined} />
        ))}
      </>,
      {},
    );
    const boxOf = (name: string) => {
      const { left, top } = screen.getByRole('button', { name: new RegExp(`^Step ${name}`) }).closest('li')?.style ?? { left: '', top: '' };
      return { x: parseFloat(left), y: parseFloat(top) };
    };
    const [a, b, c, d] = ['a', 'b', 'c', 'd'].map(boxOf);
    expect([a && b && a.x < b.x, b?.x === c?.x, b?.y !== c?.y, c && d && c.x < d.x]).toEqual([true, true, true, true]);
    expect(screen.getByText('7 working days at the fewest, by its longest way.')).toBeVisible();
    await user.click(screen.getByRole('button', { name: /^Step c/ }));
    expect(document.activeElement).toHaveValue('Step c');
  });

  it('has none where steps wait for each other in a ring', () => {
    showServed(<RoutePicture steps={[step('a', ['b']), step('b', ['a'])]} />, {});
    expect(screen.queryByRole('figure')).toBeNull();
  });
});
