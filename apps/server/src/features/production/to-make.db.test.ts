import { getValue } from '@zesting/core';
import type { SittingShape, ToMakeShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, NOW, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { assignStep, editContent, handIn } from './index.js';

describe('what there is to make', () => {
  let scene: Scene;
  let [lead, manager, staff, freelance]: Caller[] = [];
  let [first, second, other] = ['', '', ''];
  beforeAll(async () => {
    scene = await makeScene();
    [lead, manager, staff, freelance] = await Promise.all(
      (['lead', 'manager', 'staff', 'freelance'] as const).map((role) => callerAs(scene, role)),
    );
    scene.app.clock.set(NOW);
    [first, second, other] = [await makePiece(scene, scene.a), await makePiece(scene, scene.a), await makePiece(scene, scene.b)];
    const body = { shared: { copy: 'Read this aloud', disclosure: '', media: [] }, channels: [] };
    for (const id of [first, second]) getValue(await editContent(scene.app, scene.people.lead, id, body, 1));
    await scene.app.read("update pieces set wish_on = '2027-03-12' where id = $1", [second]);
    for (const id of [first, other])
      getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, id, 'write'), scene.people.freelance.personId));
    // the second is written: its design can begin
    getValue(await handIn(scene.app, scene.people.lead, await stepOf(scene, second, 'write')));
  });
  afterAll(() => scene.close());

  const counts = async (who: Caller | undefined, asked = '') =>
    ((await who?.call('GET', `/api/to-make?${asked}`))?.body as unknown as ToMakeShape).cells.map(({ skill, steps, atHand, minutes }) => [
      skill,
      steps,
      atHand,
      minutes,
    ]);
  const sitting = async (who: Caller | undefined, asked: string) =>
    ((await who?.call('GET', `/api/to-make/steps?${asked}`))?.body as unknown as SittingShape).steps;

  it('is counted by format and skill, with what can be done now; what the client does is not in it', async () => {
    const all = await counts(lead);
    const rows = await scene.app.read<{ skill: string; steps: number; minutes: number }>(
      `select s.skill, count(*) as steps, sum(coalesce(s.remaining_minutes, s.effort_minutes)) as minutes from steps s join pieces p on p.id = s.piece_id
       where s.finished_on is null and s.kind <> 'sign_off' and p.list is not null group by s.skill order by s.skill`,
    );
    expect(all.map(([skill, steps, , minutes]) => [skill, steps, minutes])).toEqual(
      rows.map((row) => [row.skill, row.steps, Number(row.minutes)]),
    );
    expect(all.find(([skill]) => skill === 'write')?.slice(1, 3)).toEqual([2, 2]);
    expect(all.find(([skill]) => skill === 'design')?.slice(1, 3)).toEqual([3, 1]);
    expect(await counts(lead, `clientId=${scene.b.id}`)).toHaveLength(3);
  });

  it('is in a manager’s reach, of one person where that is asked, and a maker’s own alone', async () => {
    const write = async (who: Caller | undefined, asked = '') => (await counts(who, asked)).find(([skill]) => skill === 'write')?.[1];
    expect([await write(lead), await write(manager)]).toEqual([2, 1]);
    expect(await write(lead, `doer=${scene.people.freelance.personId}`)).toBe(2);
    expect(await write(lead, 'doer=nobody')).toBeUndefined();
    expect(await counts(freelance)).toEqual([['write', 2, 2, expect.any(Number)]]);
    expect(await counts(freelance, `doer=${scene.people.lead.personId}`)).toEqual([['write', 2, 2, expect.any(Number)]]);
    expect(await counts(staff)).toEqual([]);
  });

  it('comes one after another, what can be done now first, with what is written so far', async () => {
    const design = await sitting(lead, `skill=design&clientId=${scene.a.id}`);
    expect(design.map(({ pieceId, atHand, copy }) => [pieceId, atHand, copy])).toEqual([
      [second, true, 'Read this aloud'],
      [first, false, 'Read this aloud'],
    ]);
    expect((await sitting(freelance, 'skill=write')).map(({ pieceId }) => pieceId).sort()).toEqual([first, other].sort());
    expect(await sitting(lead, 'skill=nothing')).toEqual([]);
    expect((await lead?.call('GET', '/api/to-make/steps'))?.body['code']).toBe('http.invalid');
    expect((await lead?.call('GET', '/api/to-make?formatId=x'))?.body['code']).toBe('http.invalid');
    getValue(await handIn(scene.app, scene.people.lead, await stepOf(scene, second, 'design')));
    expect((await sitting(lead, `skill=design&clientId=${scene.a.id}`)).map(({ pieceId }) => pieceId)).toEqual([first]);
  });

  it('forgets what is on the shelf, and what was signed off', async () => {
    const way = signOffIn(scene);
    const done = await way.ready(scene.a);
    expect((await sitting(lead, 'skill=write')).some(({ pieceId }) => pieceId === done)).toBe(false);
    const [row] = await scene.app.read<{ version: number }>('select version from pieces where id = $1', [first]);
    await lead?.call('PATCH', `/api/pieces/${first}`, { body: { shelved: true }, headers: { 'If-Match': `"${row?.version}"` } });
    expect((await sitting(lead, 'skill=write')).map(({ pieceId }) => pieceId)).toEqual([other]);
  });
});
