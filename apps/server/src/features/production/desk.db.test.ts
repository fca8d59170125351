import { getValue } from '@zesting/core';
import { callerAs, makePiece, makeScene, stepOf, type Scene } from '../../../test-support/scene.js';
import { submitRequest } from '../intake/index.js';
import { assignStep, changePiecePath, editContent, editPiece, handIn } from './index.js';

interface Desk {
  rows: { id: string; list: string; lateFromOn: string | null }[];
  newRequests: number;
  openPieces: number;
}

describe('the desk and what stands beside it', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  const desk = async (query = '') => (await (await callerAs(scene, 'manager')).call('GET', `/api/desk${query}`)).body as unknown as Desk; // DeskShape

  it('lists every open piece of the own clients once, most dangerous first, then what is late sooner', async () => {
    const late = await makePiece(scene, scene.a, '2027-03-03');
    const sooner = await makePiece(scene, scene.a, '2027-03-16');
    const later = await makePiece(scene, scene.a, '2027-03-23');
    const undated = await makePiece(scene, scene.a, null);
    await makePiece(scene, scene.b);
    for (const pieceId of [late, undated])
      getValue(await assignStep(scene.app, scene.people.manager, await stepOf(scene, pieceId, 'write'), scene.people.freelance.personId));
    const { rows, openPieces } = await desk();
    expect(rows.map((row) => [row.id, row.list])).toEqual([
      [late, 'overdue'],
      [sooner, 'no_doer'],
      [later, 'no_doer'],
      [undated, 'undated'],
    ]);
    expect(openPieces).toBe(rows.length);
    getValue(await editPiece(scene.app, scene.people.manager, later, { shelved: true }, 1));
    expect((await desk()).rows.map((row) => row.id)).not.toContain(later);
    expect((await desk(`?clientId=${scene.b.id}`)).rows).toEqual([]);
  });

  it('names what can be worked on side by side, with everybody who has it', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a, '2027-03-26');
    const write = await stepOf(scene, pieceId, 'write');
    const beside = {
      kind: 'add',
      stepId: write,
      title: 'Film',
      does: 'make',
      skill: 'write',
      place: 'beside',
      spanDays: 1,
      effortMinutes: 60,
    } as const;
    getValue(await changePiecePath(app, people.manager, pieceId, [beside]));
    const rowOf = async () => {
      const manager = await callerAs(scene, 'manager');
      const { items } = (await manager.call('GET', '/api/pieces?shown=open')).body as {
        items: { id: string; currentStep: string; currentDoer: string | null }[];
      };
      const found = [(await desk()).rows, items].map((rows) => (rows as typeof items).find(({ id }) => id === pieceId));
      return found.map((row) => [row?.currentStep, row?.currentDoer]);
    };
    const narrowed = async (doer: string) => {
      const { body } = await (await callerAs(scene, 'manager')).call('GET', `/api/pieces?shown=open&doer=${doer}`);
      return (body as { items: { id: string }[] }).items.some(({ id }) => id === pieceId);
    };
    expect(await rowOf()).toEqual([
      ['Write, Film', null],
      ['Write, Film', null],
    ]);
    getValue(await assignStep(app, people.manager, write, people.freelance.personId));
    // the desk is about the step that nobody has, the table about all
    expect(await rowOf()).toEqual([
      ['Film', null],
      ['Write, Film', 'Fay, nobody'],
    ]);
    expect([await narrowed(people.freelance.personId), await narrowed('nobody'), await narrowed(people.staff.personId)]).toEqual([
      true,
      true,
      false,
    ]);
    const [film] = await app.read<{ id: string }>("select id from steps where piece_id = $1 and title = 'Film'", [pieceId]);
    getValue(await assignStep(app, people.manager, film?.id ?? '', people.staff.personId));
    expect(await rowOf()).toEqual([
      ['Write, Film', 'Fay, Sia'],
      ['Write, Film', 'Fay, Sia'],
    ]);
    await app.read('update pieces set shelved = true, list = null where id = $1', [pieceId]);
  });

  it('counts what waits at each station, and how long the oldest has', async () => {
    getValue(
      await submitRequest(
        scene.app,
        scene.a.linkId,
        { name: 'Ann', email: 'ann@aaa.test', answers: { about: 'X' }, version: 1 },
        'station',
      ),
    );
    scene.app.clock.set('2027-03-04T10:00:00Z');
    const { body } = await (await callerAs(scene, 'manager')).call('GET', '/api/stations');
    expect(body).toMatchObject({
      requests: { count: 1, oldestDays: 3 },
      production: { count: 3, oldestDays: 3 },
      signOff: { count: 0, oldestDays: null },
    });
    expect((await desk()).newRequests).toBe(1);
    scene.app.clock.set('2027-03-01T09:00:00Z');
  });

  it('gives a creator the own steps in the order to do them: at hand by date, then what waits', async () => {
    const { app, people } = scene;
    const [first, second] = [await makePiece(scene, scene.a, '2027-04-20'), await makePiece(scene, scene.a, '2027-04-13')];
    for (const pieceId of [first, second])
      for (const key of ['write', 'design'])
        getValue(await assignStep(app, people.manager, await stepOf(scene, pieceId, key), people.staff.personId));
    const mine = async () =>
      (
        (await (await callerAs(scene, 'staff')).call('GET', '/api/steps/mine')).body['rows'] as {
          pieceId: string;
          stepTitle: string;
          waitsFor: string | null;
          thenGoesTo: string;
        }[]
      ).map((row) => [row.pieceId === first ? 'first' : 'second', row.stepTitle, row.waitsFor]); // MyStepsShape
    expect(await mine()).toEqual([
      ['second', 'Write', null],
      ['first', 'Write', null],
      ['second', 'Design', 'Write'],
      ['first', 'Design', 'Write'],
    ]);
    getValue(await editContent(app, people.staff, second, { shared: { copy: 'Words', disclosure: '', media: [] }, channels: [] }, 1));
    getValue(await handIn(app, people.staff, await stepOf(scene, second, 'write')));
    expect((await mine()).slice(0, 2)).toEqual([
      ['second', 'Design', null],
      ['first', 'Write', null],
    ]);
  });
});
