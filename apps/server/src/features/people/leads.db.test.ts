import type { PiecePage, PieceShape, TeamShape } from '@zesting/contract';
import { tellManagers } from '../notices/index.js';
import { callerAs, makePiece, makeScene, NOW, type Caller, type Scene } from '../../../test-support/scene.js';

describe('who answers for a piece', () => {
  let scene: Scene;
  let lead: Caller;
  let pieceId = '';
  beforeAll(async () => {
    scene = await makeScene();
    scene.app.clock.set(NOW);
    lead = await callerAs(scene, 'lead');
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from client_leads');
    await scene.app.read('update pieces set lead_id = null');
    await scene.app.read('delete from notices where sent_at is null');
    pieceId = await makePiece(scene, scene.a);
  });

  const team = async () => (await lead.call('GET', `/api/clients/${scene.a.id}/team`)).body as unknown as TeamShape;
  const answersForClient = (personId: string | null, wasId: string | null) =>
    lead.call('PUT', `/api/clients/${scene.a.id}/team/lead`, { body: { personId, wasId } });
  const piece = async () => (await lead.call('GET', `/api/pieces/${pieceId}`)).body as unknown as PieceShape;
  const answersForPiece = async (leadId: string | null) =>
    lead.call('PATCH', `/api/pieces/${pieceId}`, { body: { leadId }, headers: { 'If-Match': `"${(await piece()).version}"` } });
  const { personId: nobody } = { personId: '00000000-0000-4000-8000-000000000000' };

  it('is whoever answers for its client, until somebody is named for it, as long as they are with the agency', async () => {
    const { manager, staff } = scene.people;
    expect((await team()).lead).toBeNull();
    expect((await piece()).lead).toBeNull();
    expect((await answersForClient(manager.personId, null)).status).toBe(204);
    expect((await team()).lead).toEqual({ personId: manager.personId, name: manager.name, hasLeft: false });
    expect(await piece()).toMatchObject({ leadId: null, lead: { personId: manager.personId } });
    expect((await answersForPiece(staff.personId)).body).toMatchObject({ leadId: staff.personId, lead: { name: staff.name } });
    await scene.app.read('update people set active = false, left_at = now() where id = $1', [staff.personId]);
    expect(await piece()).toMatchObject({ leadId: staff.personId, lead: { personId: manager.personId } });
    await scene.app.read('update people set active = false, left_at = now() where id = $1', [manager.personId]);
    expect((await piece()).lead).toBeNull();
    expect((await team()).lead).toMatchObject({ hasLeft: true });
    await scene.app.read('update people set active = true, left_at = null');
    expect((await answersForPiece(null)).body).toMatchObject({ leadId: null, lead: { personId: manager.personId } });
  });

  it('is nobody who could not: a freelance creator, one barred from the client, one who is not there', async () => {
    const { freelance, staff, manager } = scene.people;
    await scene.app.read(
      "insert into client_people (client_id, person_id, relation) values ($1, $2, 'barred') on conflict (client_id, person_id) do update set relation = 'barred'",
      [scene.a.id, staff.personId],
    );
    for (const personId of [freelance.personId, staff.personId, nobody]) {
      expect((await answersForClient(personId, null)).body['code']).toBe('person.unknown');
      expect((await answersForPiece(personId)).body['code']).toBe('person.unknown');
    }
    const could = (await team()).couldLead.map(({ personId }) => personId);
    expect(could).toContain(manager.personId);
    for (const personId of [freelance.personId, staff.personId]) expect(could).not.toContain(personId);
    await scene.app.read("delete from client_people where relation = 'barred'");
  });

  it('of two who name somebody at once, one is refused', async () => {
    const { manager, staff } = scene.people;
    const answers = await Promise.all([manager, staff].map(({ personId }) => answersForClient(personId, null)));
    expect(answers.map(({ status }) => status).sort()).toEqual([204, 412]);
    const won = [manager, staff][answers.findIndex(({ status }) => status === 204)];
    expect((await team()).lead?.personId).toBe(won?.personId);
  });

  it('narrows the work, and stands in the sheet', async () => {
    const { manager, staff } = scene.people;
    const other = await makePiece(scene, scene.a);
    await answersForClient(manager.personId, null);
    await answersForPiece(staff.personId);
    const ids = async (leadId: string) =>
      ((await lead.call('GET', `/api/pieces?shown=open&clientId=${scene.a.id}&leadId=${leadId}`)).body as unknown as PiecePage).items.map(
        ({ id }) => id,
      );
    expect(await ids(staff.personId)).toEqual([pieceId]);
    expect(await ids(manager.personId)).toContain(other);
    expect(await ids(manager.personId)).not.toContain(pieceId);
    const { rows } = (await lead.call('GET', `/api/pieces/sheet?leadId=${staff.personId}`)).body as unknown as {
      rows: { id: string; leadName: string }[];
    };
    expect(rows.map(({ id, leadName }) => [id, leadName])).toEqual([[pieceId, staff.name]]);
  });

  it('alone hears of it, where they manage the client today; else all who do', async () => {
    const { manager, staff } = scene.people;
    const [second] = await scene.app.read<{ id: string }>(
      `with made as (insert into people (name, email, role, zone, region, weekly_minutes, skills) select 'Second', 'second@agency.test', 'manager', zone, region, weekly_minutes, '{}' from people where id = $1 returning id)
       select id from made`,
      [manager.personId],
    );
    await scene.app.read("insert into client_people (client_id, person_id, relation) values ($1, $2, 'own')", [scene.a.id, second?.id]);
    const heard = async (of?: string) => {
      await scene.app.read('delete from notices where sent_at is null');
      await scene.app.write(async (tx) => {
        await tellManagers(scene.app, tx, { clientId: scene.a.id, heading: 'H', text: 'T', path: '/', ...(of ? { pieceId: of } : {}) });
        return { ok: true, value: null };
      });
      const rows = await scene.app.read<{ id: string }>('select person_id as id from notices where sent_at is null');
      return rows.map(({ id }) => id).sort();
    };
    const both = [manager.personId, second?.id].sort();
    expect(await heard(pieceId)).toEqual(both);
    await answersForClient(manager.personId, null);
    expect(await heard(pieceId)).toEqual([manager.personId]);
    expect(await heard()).toEqual(both); // of no piece
    await answersForPiece(second?.id ?? '');
    expect(await heard(pieceId)).toEqual([second?.id]);
    await answersForPiece(staff.personId); // answers for it, but manages no client
    expect(await heard(pieceId)).toEqual(both);
    await scene.app.read('delete from client_people where person_id = $1', [second?.id]);
    await scene.app.read('update people set active = false, left_at = now() where id = $1', [second?.id]);
  });
});
