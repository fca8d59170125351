import { getValue, ok } from '@zesting/core';
import { callerAs, makePiece, makeScene, NOW, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { assignStep, finishStep, stepsOf } from '../production/index.js';
import { predict } from './index.js';

interface Load {
  people: {
    personId: string;
    hours: number[];
    taken: number[];
    overloads: { dueOn: string; overMinutes: number }[];
  }[];
  month: string;
  clients: { clientId: string; doneMinutes: number; openMinutes: number; includedMinutes: number | null }[];
}

describe('everybody’s load', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    scene.app.clock.set(NOW);
    manager = await callerAs(scene, 'manager');
  });
  beforeEach(async () => {
    await scene.app.read('update pieces set shelved = true, list = null');
    await scene.app.read('delete from time_off');
  });
  afterAll(() => scene.close());

  const load = async (by = manager, days = 'from=2027-03-01&to=2027-03-14'): Promise<Load> =>
    (await by.call('GET', `/api/load?${days}`)).body as unknown as Load;
  /** A piece whose first step takes so long, given to the freelancer. */
  const given = async (client: Scene['a'], wishOn: string, minutes: number): Promise<string> => {
    const pieceId = await makePiece(scene, client, wishOn);
    const stepId = await stepOf(scene, pieceId, 'write');
    await scene.app.read('update steps set effort_minutes = $2 where id = $1', [stepId, minutes]);
    getValue(await assignStep(scene.app, scene.people.lead, stepId, scene.people.freelance.personId));
    return stepId;
  };
  const of = (all: Load) => {
    const person = all.people.find(({ personId }) => personId === scene.people.freelance.personId);
    if (!person) throw new Error('nobody');
    return person;
  };

  const workOf = async (by: Caller) => {
    const { body } = await by.call('GET', `/api/load/${scene.people.freelance.personId}`);
    const { steps } = body as {
      steps: { stepId: string; title: string | null; pieceTitle: string | null; clientId: string | null; minutes: number }[];
    };
    return new Map(steps.map((step) => [step.stepId, step]));
  };

  it('is told day by day, of the hours that there are', async () => {
    await scene.app.read("insert into time_off (person_id, start_on, end_on, part) values ($1, '2027-03-02', '2027-03-02', 0.5)", [
      scene.people.freelance.personId,
    ]);
    await given(scene.a, '2027-03-30', 900);
    const { hours, taken, overloads } = of(await load());
    expect(hours.slice(0, 7)).toEqual([480, 240, 480, 480, 480, 0, 0]);
    expect(taken.slice(0, 5)).toEqual([480, 240, 180, 0, 0]); // 15 hours from Monday on
    expect(overloads).toEqual([]);
  });

  it('says where more is due than there are hours, and what it comes from', async () => {
    // write is due on Thursday 4 March for Friday the 12th: design 2, check 1, the client 2 days; 20 hours there are, since Thursday is half off
    const mine = await given(scene.a, '2027-03-12', 27 * 60);
    const due = await scene.app.read<{ on: string }>('select latest_finish_on as "on" from steps where id = $1', [mine]);
    expect(due).toEqual([{ on: '2027-03-04' }]);
    await scene.app.read("insert into time_off (person_id, start_on, end_on, part) values ($1, '2027-03-02', '2027-03-03', 0.5)", [
      scene.people.freelance.personId,
    ]);
    expect(of(await load()).overloads).toEqual([{ fromOn: '2027-03-01', dueOn: '2027-03-04', overMinutes: 3 * 60 }]);
  });

  it('tells of clients that one does not look after hours and dates alone', async () => {
    const [mine, theirs] = [await given(scene.a, '2027-03-30', 60), await given(scene.b, '2027-03-30', 60)];
    const told = await workOf(manager);
    expect(told.get(mine)).toMatchObject({ title: 'Write', pieceTitle: 'A piece', clientId: scene.a.id, minutes: 60 });
    expect(told.get(theirs)).toMatchObject({ title: null, pieceTitle: null, clientId: null, pieceId: null, minutes: 60 });
    const asLead = await workOf(await callerAs(scene, 'lead'));
    expect(asLead.get(theirs)?.clientId).toBe(scene.b.id);
  });

  it('adds up the hours of a client in a month: what ended, what will, and what is agreed', async () => {
    await scene.app.read('update clients set allowance = \'{"hours":10,"formats":[]}\' where id = $1', [scene.a.id]);
    const pieceId = await makePiece(scene, scene.a, '2027-03-30'); // an hour, two, a quarter
    getValue(
      await scene.app.write(async (tx, now) => {
        const [first] = await stepsOf(tx, pieceId);
        if (first) await finishStep(tx, first, now);
        return ok(null);
      }),
    );
    getValue(await scene.app.write(async (tx, now) => ok(await predict(tx, now))));
    const { month, clients } = await load();
    expect([month, clients]).toEqual(['2027-03', [{ clientId: scene.a.id, doneMinutes: 60, openMinutes: 135, includedMinutes: 600 }]]);
    const before = await load(manager, 'from=2027-02-15&to=2027-02-28');
    expect([before.month, before.clients]).toMatchObject(['2027-02', [{ doneMinutes: 0, openMinutes: 0 }]]);
    expect((await load(manager, 'from=2027-02-22&to=2027-03-07')).month).toBe('2027-03'); // as today is then
  });

  it('refuses days that are none, the wrong way round, or too many', async () => {
    for (const days of ['from=2027-03-01', 'from=2027-03-02&to=2027-03-01', 'from=2027-03-01&to=2027-12-01', 'from=x&to=2027-03-01'])
      expect([days, (await manager.call('GET', `/api/load?${days}`)).status]).toEqual([days, 400]);
  });
});
