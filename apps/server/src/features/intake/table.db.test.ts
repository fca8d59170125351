import { randomUUID } from 'node:crypto';
import { callerAs, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';

describe('a table of requests', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
  });
  afterAll(() => scene.close());

  const path = () => `/api/clients/${scene.a.id}/table`;
  const read = (text: string) => {
    const body = new FormData();
    body.append('file', new Blob([text]), 'requests.csv');
    return manager.call('POST', `${path()}/read`, { body });
  };
  const take = (
    rows: string[][],
    { columns = ['field:about', 'field:wish', 'email'], key = randomUUID() as string, askedBy = 'Ann' } = {},
  ) =>
    manager.call('POST', path(), {
      body: { formId: scene.a.formId, columns, rows: rows.map((cells) => ({ cells })), askedBy },
      headers: { 'Idempotency-Key': key },
    });
  const requests = () =>
    scene.app.read<object>(
      `select title, wish_on, requester_name, requester_email, contact_id, way, read_at, state from requests where way = 'table' order by number`,
    );

  it('is read and not kept, or refused with a reason', async () => {
    expect((await read('About,When\nOven,3 April\n')).body).toEqual({ heads: ['About', 'When'], rows: [['Oven', '3 April']] });
    expect((await read('About\n')).body['code']).toBe('table.empty');
    expect((await read('a\n"b')).body['code']).toBe('table.unreadable');
    expect(await requests()).toEqual([]);
  });

  it('is taken whole, once, and nobody is written to', async () => {
    const key = randomUUID();
    const rows = [
      ['Oven', '3 April 2027', 'contact@aaa.test'],
      ['', '', ''],
      ['Crumpets', '', ''],
    ];
    const mails = () => scene.app.read('select 1 from graphile_worker.jobs where task_identifier = $1', ['mail_send']);
    const before = (await mails()).length;
    expect((await take(rows, { key })).body).toEqual({ requests: 2 });
    expect((await take(rows, { key })).body).toEqual({ requests: 2 });
    expect(await mails()).toHaveLength(before);
    const usual = { way: 'table', requester_name: 'Ann', read_at: null, state: 'new' };
    expect(await requests()).toMatchObject([
      { ...usual, title: 'Oven', wish_on: '2027-04-03', requester_email: 'contact@aaa.test', contact_id: scene.a.contactId },
      { ...usual, title: 'Crumpets', wish_on: null, requester_email: null, contact_id: null },
    ]);
  });

  it('is not taken at all where one line is wrong, and each problem is told with its line', async () => {
    const before = await requests();
    const { status, body } = await take([
      ['Right', '', ''],
      ['', 'never', 'no address'],
    ]);
    expect([status, body['code']]).toEqual([422, 'table.rows_wrong']);
    expect(body['problems']).toEqual([
      { line: 3, about: 'field:about', cell: '', problem: 'required' },
      { line: 3, about: 'field:wish', cell: 'never', problem: 'not_a_date' },
      { line: 3, about: 'email', cell: 'no address', problem: 'not_an_email' },
    ]);
    expect(await requests()).toEqual(before);
    expect((await take([['A', '', '']], { columns: ['field:files', '', ''] })).body['code']).toBe('table.rows_wrong');
    expect((await take([['A', '', '']], { columns: ['song', '', ''] })).status).toBe(400);
    expect((await take([['A', 1 as never, '']])).status).toBe(400);
  });
});
