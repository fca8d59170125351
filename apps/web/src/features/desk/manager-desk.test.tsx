import { screen, within } from '@testing-library/react';
import type { DeskRow, DeskShape, ObstacleRow } from '@zesting/contract';
import type { ReckoningList } from '@zesting/core';
import { showServed } from '../../../test-support/served';
import { ManagerDesk } from './manager-desk';

const row = (list: ReckoningList, title: string, more: Partial<DeskRow> = {}): DeskRow => ({
  id: title,
  number: 1,
  clientId: 'c1',
  title,
  formatName: 'Still',
  pillarName: null,
  stage: 'planned',
  list,
  aimOn: '2027-03-11',
  danger: null,
  slackDays: -4,
  lateFromOn: null,
  round: 1,
  wheel: [],
  currentStep: 'Write',
  currentDoer: null,
  earliestPublishOn: '2027-03-22',
  packetDueOn: null,
  waitsForWord: false,
  materialDueOn: null,
  placementId: null,
  trouble: null,
  late: null,
  ...more,
});
const desk = (rows: DeskRow[], more: Partial<DeskShape> = {}): DeskShape => ({
  todayOn: '2027-03-01',
  rows,
  lists: [...new Set(rows.map(({ list }) => list as ReckoningList))].map((list) => ({
    list,
    count: rows.filter((one) => one.list === list).length,
  })),
  newRequests: 0,
  openPieces: rows.length,
  ...more,
});
const OBSTACLE: Partial<ObstacleRow> = {
  id: 'o1',
  clientId: 'c1',
  pieceId: 'p1',
  pieceTitle: 'The flour arrives',
  stepTitle: null,
  words: 'No flour',
  whose: 'outside',
  isMine: false,
  personName: null,
  sinceOn: '2027-03-01',
  untilOn: null,
  days: 0,
};
const show = (shape: DeskShape, obstacles: readonly Partial<ObstacleRow>[] = [], soon: object = {}) =>
  showServed(<ManagerDesk />, {
    'GET /desk': shape,
    'GET /steps/mine': { rows: [] },
    'GET /obstacles': { rows: obstacles, total: obstacles.length },
    'GET /duties/mine': { rows: [], todayOn: '2027-03-01' },
    'GET /runway': { horizonDays: 42, rows: [] },
    'GET /going-out/soon': { count: 0, unready: 0, unchecked: 0, unaddressed: 0, ...soon },
    'GET /follow-ups': { open: [], todays: [] },
    'GET /spin-offs': { rows: [], stale: 0, next: null },
  });

describe('the desk of a manager', () => {
  it('begins with what has slipped; what stands in the way comes next, and the rest after it', async () => {
    show(
      desk([
        row('trouble', 'Missed one', { trouble: 'missed' }),
        row('overdue', 'Pancakes'),
        row('no_doer', 'Buns'),
        row('with_client', 'Rye'),
      ]),
      [OBSTACLE],
    );
    expect(await screen.findByText(/^Write \(nobody yet\) should be done: 4 working days short; Mon 22 Mar/)).toBeTruthy();
    const heads = screen.getAllByRole('heading', { level: 2 }).map(({ textContent }) => textContent);
    expect(heads.slice(0, 5)).toEqual([
      'Missed, failed or unsure1',
      'Overdue1',
      'In the way1',
      'Nobody has it1Propose doers',
      'With the client1',
    ]);
    // what is with the client is the client's turn
    expect(screen.getByText(/3 of 4 open pieces to act on/)).toBeTruthy();
  });

  it('says in one line each what waits elsewhere, and nothing where nothing does', async () => {
    show(desk([row('overdue', 'Pancakes')], { newRequests: 3 }), [], { count: 4, unready: 2, unaddressed: 1 });
    const soon = await screen.findByRole('link', { name: /^2 ?not ready of 4 that go out within three days/ });
    expect(within(soon).getByText('1 out without an address')).toBeTruthy();
    expect(screen.getByRole('link', { name: /^3 ?requests wait for your word/ }).getAttribute('href')).toBe('/requests');
    expect(screen.queryByText(/behind what/)).toBeNull();
  });

  it('of an agency without pieces says what to do', async () => {
    show(desk([]));
    expect(await screen.findByText('No piece is open')).toBeTruthy();
    expect(screen.queryByText(/your word/)).toBeNull();
    expect(screen.getByRole('link', { name: 'Go to the requests' })).toBeTruthy();
  });
});
