import { getValue } from '@zesting/core';
import type { CandidateShape, FeasibilityShape, TeamShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { beginPiece } from '../calendar/index.js';
import { comeBack, leave, putTeamRole } from './index.js';

describe('who usually does what for a client', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    await scene.app.read(`update people set skills = '{"write":2,"design":1}' where role in ('staff', 'freelance')`);
    await scene.app.read(`update people set skills = '{"check":3}' where role in ('lead', 'manager')`);
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from client_team');
    await scene.app.read("delete from client_people where relation = 'barred'");
  });

  const team = async () => (await manager.call('GET', `/api/clients/${scene.a.id}/team`)).body as unknown as TeamShape;
  const put = async (skill: string, personId: string | null, wasId: string | null = null) => {
    const { status, body } = await manager.call('PUT', `/api/clients/${scene.a.id}/team`, { body: { skill, personId, wasId } });
    return status === 204 ? 204 : body['code'];
  };
  const role = async (skill: string) => (await team()).roles.find((one) => one.skill === skill);

  it('is told skill by skill, with who could, and what nobody can', async () => {
    expect(
      (await team()).roles.map(({ skill, personId, routes, able }) => [skill, personId, routes, able.map(({ name }) => name)]),
    ).toEqual([
      ['check', null, 1, ['Lea', 'Max']],
      ['design', null, 1, ['Fay', 'Sia']],
      ['write', null, 1, ['Fay', 'Sia']],
    ]);
    await scene.app.read("insert into client_people (client_id, person_id, relation) values ($1, $2, 'barred')", [
      scene.a.id,
      scene.people.freelance.personId,
    ]);
    expect((await role('write'))?.able.map(({ name }) => name)).toEqual(['Sia']);
  });

  it('refuses who cannot, and what was changed meanwhile', async () => {
    const { staff, freelance, manager: max } = scene.people;
    expect(await put('write', max.personId)).toBe('person.unskilled');
    expect(await put('sing', staff.personId)).toBe('skill.unknown');
    expect(await put('write', '00000000-0000-4000-8000-000000000000')).toBe('person.unknown');
    await scene.app.read("insert into client_people (client_id, person_id, relation) values ($1, $2, 'barred')", [
      scene.a.id,
      freelance.personId,
    ]);
    expect(await put('write', freelance.personId)).toBe('person.barred');
    expect(await put('write', staff.personId)).toBe(204);
    expect(await put('write', null)).toBe('http.changed_meanwhile'); // as if nobody had it
    expect(await role('write')).toMatchObject({ personName: 'Sia', cannot: null });
    // two at once: one of them is told
    const both = await Promise.all(
      [staff, freelance].map(({ personId }) =>
        putTeamRole(scene.app, scene.people.lead, scene.b.id, { skill: 'design', personId, wasId: null }),
      ),
    );
    expect(both.filter(({ ok }) => ok)).toHaveLength(1);
    const [line] = await scene.app.read<{ detail: unknown }>(
      "select detail from activities where verb = 'client.team_set' and client_id = $1",
      [scene.a.id],
    );
    expect(line?.detail).toEqual({ write: { from: null, to: 'Sia' } });
  });

  it('is proposed when a piece begins, and gets its steps; where they cannot, whoever is free first', async () => {
    const { staff, freelance } = scene.people;
    // Sia has more to do than Fay: free first is Fay
    const busy = await makePiece(scene, scene.b);
    await scene.app.read("update steps set doer_id = $2, effort_minutes = 6000 where piece_id = $1 and key = 'write'", [
      busy,
      staff.personId,
    ]);
    const proposed = async () => {
      const answer = await manager.call('GET', `/api/clients/${scene.a.id}/feasibility/${scene.routeId}`);
      return (answer.body as unknown as FeasibilityShape).doers.map(
        ({ title, name, isUsual }) => `${title} ${name}${isUsual ? ' usually' : ''}`,
      );
    };
    const begun = async () => {
      const body = { routeId: scene.routeId, channelIds: [], isPencilled: false, giveFirst: true };
      const id = getValue(await beginPiece(scene.app, scene.people.manager, scene.a.id, body));
      const steps = await scene.app.read<{ name: string | null }>(
        "select d.name from steps s left join people d on d.id = s.doer_id where s.piece_id = $1 and s.kind <> 'sign_off' order by s.position",
        [id],
      );
      return steps.map(({ name }) => name);
    };
    const free = await begun();
    expect(await put('write', staff.personId)).toBe(204);
    expect(await put('design', freelance.personId)).toBe(204);
    expect((await proposed()).slice(0, 2)).toEqual([expect.stringMatching(/ Sia usually$/), expect.stringMatching(/ Fay usually$/)]);
    expect((await begun()).slice(0, 2)).toEqual(['Sia', 'Fay']);
    expect(free.slice(0, 1)).toEqual(['Fay']);
    // who has left is not proposed, and it is said
    await leave(scene.app, scene.people.lead, staff.personId);
    expect(await role('write')).toMatchObject({ personName: 'Sia', cannot: 'left' });
    expect((await begun())[0]).toBe('Fay');
    await comeBack(scene.app, scene.people.lead, staff.personId);
  });

  it('stands first among those who could do a step', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const candidates = async () =>
      (
        (await manager.call('GET', `/api/steps/${await stepOf(scene, pieceId, 'write')}/candidates`)).body as unknown as CandidateShape[]
      ).map(({ name, isUsual }) => [name, isUsual]);
    const before = (await candidates()).slice(0, 2).map(([name]) => name);
    const second = before[1] === 'Sia' ? scene.people.staff : scene.people.freelance;
    expect(await put('write', second.personId)).toBe(204);
    expect((await candidates()).slice(0, 2)).toEqual([
      [before[1], true],
      [before[0], false],
    ]);
  });

  it('keeps its people when skills get other names, also where two change places', async () => {
    const { staff, freelance } = scene.people;
    expect([await put('write', staff.personId), await put('design', freelance.personId)]).toEqual([204, 204]);
    const lead = await callerAs(scene, 'lead');
    const agency = (await lead.call('GET', '/api/agency')).body as unknown as { version: number; skills: { id: string; name: string }[] };
    const swapped: Record<string, string> = { write: 'design', design: 'write' };
    const skills = agency.skills.map(({ id, name }) => ({ id, name: swapped[name] ?? name }));
    const changed = await lead.call('PATCH', '/api/agency', { body: { skills }, headers: { 'If-Match': `"${agency.version}"` } });
    expect(changed.status).toBe(200);
    const rows = await scene.app.read<{ skill: string; name: string }>(
      'select t.skill, p.name from client_team t join people p on p.id = t.person_id where t.client_id = $1 order by t.skill',
      [scene.a.id],
    );
    expect(rows).toEqual([
      { skill: 'design', name: 'Sia' },
      { skill: 'write', name: 'Fay' },
    ]);
  });
});
