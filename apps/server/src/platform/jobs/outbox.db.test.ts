import { createServer as createTcp, type Socket } from 'node:net';
import { fail, ok } from '@zesting/core';
import { makeTestDatabase, type TestDatabase } from '../../../test-support/database.js';
import { eventually } from '../../../test-support/eventually.js';
import { createServer } from '../../server.js';
import { App } from '../app.js';
import { queueMail } from '../mail/mail.js';
import { Jobs } from './jobs.js';

/** A listener that speaks just enough SMTP to take mail, and can refuse the first tries. */
function smtp(refuseFirst: number, refusal = '451 try again later'): Promise<{ port: number; received: string[]; close: () => void }> {
  const received: string[] = [];
  let refused = 0;
  const server = createTcp((socket) => {
    let data: string | null = null;
    socket.write('220 ready\r\n');
    socket.on('error', () => socket.destroy());
    socket.on('data', (chunk) => {
      for (const line of chunk.toString().split('\r\n')) {
        if (data !== null) {
          if (line === '.') {
            received.push(data);
            data = null;
            socket.write('250 taken\r\n');
          } else data += `${line}\n`;
        } else if (line.startsWith('MAIL') && refused < refuseFirst) {
          refused += 1;
          socket.write(`${refusal}\r\n`);
        } else if (line.startsWith('DATA')) {
          data = '';
          socket.write('354 go on\r\n');
        } else if (line.startsWith('QUIT')) socket.end('221 bye\r\n');
        else if (line !== '') socket.write('250 ok\r\n');
      }
    });
  });
  return new Promise((resolve) => {
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      resolve({ port: typeof address === 'object' && address ? address.port : 0, received, close: () => server.close() });
    });
  });
}

describe('the outbox', () => {
  let database: TestDatabase;
  beforeEach(async () => {
    database = await makeTestDatabase();
  });
  afterEach(() => database.drop());

  it('sends what was committed, once, and never what was rolled back', async () => {
    const post = await smtp(0);
    const server = await createServer({ ...database.config, smtp: { ...database.config.smtp, port: post.port } });
    await server.init();
    const app = server.get(App);
    await app.write(async (tx) => {
      await queueMail(tx, { to: 'lost@x.test', subject: 'Lost', paragraphs: ['x'] });
      return fail({ code: 'piece.signed_already' });
    });
    await app.write(async (tx) => {
      await queueMail(tx, { to: 'kept@x.test', subject: 'Kept', paragraphs: ['x'] });
      return ok(null);
    });
    await eventually(() => post.received.length > 0);
    expect(post.received.map((mail) => /^Subject: (.*)$/m.exec(mail)?.[1])).toEqual(['Kept']);
    await server.close();
    post.close();
  });

  it('keeps a mail that could not be sent for another try, under the same Message-ID', async () => {
    const post = await smtp(1);
    const server = await createServer({ ...database.config, smtp: { ...database.config.smtp, port: post.port } });
    await server.init();
    const app = server.get(App);
    await app.write(async (tx) => {
      await queueMail(tx, { to: 'kept@x.test', subject: 'Kept', paragraphs: ['x'] });
      return ok(null);
    });
    const jobs = () =>
      app.read<{ attempts: number; last_error: string | null }>(
        "select attempts, last_error from graphile_worker.jobs where task_identifier = 'mail_send'",
      );
    let seen = await jobs();
    for (let tries = 0; tries < 200 && !seen[0]?.last_error; tries++) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      seen = await jobs();
    }
    expect(seen[0]).toMatchObject({ attempts: 1, last_error: expect.stringContaining('451') });
    const [before] = await app.read<{ id: string }>(
      "select payload ->> 'messageId' as id from graphile_worker._private_jobs where payload ->> 'messageId' is not null",
    );
    await app.read('update graphile_worker._private_jobs set run_at = now()');
    await eventually(() => post.received.length > 0);
    expect(post.received[0]).toContain(`Message-ID: ${before?.id}`);
    await server.close();
    post.close();
  });

  it('does not try again what the mail server refuses for good, and tells those who can do something about it', async () => {
    const post = await smtp(1, '550 no such user here');
    const server = await createServer({ ...database.config, smtp: { ...database.config.smtp, port: post.port } });
    await server.init();
    const app = server.get(App);
    await app.read("insert into agencies (name, zone, region, weekly_minutes) values ('A', 'Europe/London', 'GB-ENG', '{480}')");
    const [lead] = await app.read<{ id: string }>(
      "insert into people (name, email, role, zone, region, weekly_minutes, round_up) values ('Lea', 'lea@x.test', 'lead', 'Europe/London', 'GB-ENG', '{480}', 'daily') returning id",
    );
    const [client] = await app.read<{ id: string }>(
      `insert into clients (code, name, colour, zone, region, weekly_minutes, policy) values ('AAA', 'Client', 0, 'Europe/London', 'GB-ENG', '{480}', '{"kind":"any"}') returning id`,
    );
    await app.read("insert into contacts (client_id, name, email) values ($1, 'Con Tact', 'Gone@x.test')", [client?.id]);
    await app.write(async (tx) => {
      await queueMail(tx, { to: 'gone@x.test', subject: 'For your sign-off', paragraphs: ['x'] });
      return ok(null);
    });
    await eventually(async () => (await app.read('select 1 from notices')).length > 0);
    const [notice] = await app.read('select person_id, heading, text from notices');
    expect(notice).toEqual({
      person_id: lead?.id,
      heading: 'Mail did not arrive: For your sign-off',
      text: 'A mail to Con Tact of Client (gone@x.test) did not arrive: 550 no such user here. It is not tried again.',
    });
    await eventually(async () => (await app.read("select 1 from graphile_worker.jobs where task_identifier = 'mail_send'")).length === 0);
    expect(await app.read("select verb, detail ->> 'to' as to from activities")).toEqual([
      { verb: 'client.mail_failed', to: 'gone@x.test' },
    ]);
    await server.close();
    post.close();
  });

  it('leaves to a server that lives what it is at work on, however long that takes', async () => {
    const calls: Socket[] = [];
    const silent = createTcp((socket) => void calls.push(socket.on('error', () => socket.destroy()))); // takes the call and says nothing
    await new Promise<void>((resolve) => silent.listen(0, '127.0.0.1', resolve));
    const address = silent.address();
    const port = typeof address === 'object' && address ? address.port : 0;
    const server = await createServer({ ...database.config, smtp: { ...database.config.smtp, port } });
    await server.init();
    const app = server.get(App);
    await app.write(async (tx) => ok(await queueMail(tx, { to: 'a@x.test', subject: 'Slow', paragraphs: ['x'] })));
    const held = () => app.read<{ by: string }>("select locked_by as by from graphile_worker._private_jobs where locked_by is not null and payload ->> 'subject' = 'Slow'"); // prettier-ignore
    await eventually(async () => (await held()).length === 1);
    const before = await held();
    await app.read("update graphile_worker._private_jobs set locked_at = now() - interval '1 hour' where locked_by is not null");
    expect(await server.get(Jobs).freeLost()).toEqual([]);
    expect(await held()).toEqual(before);
    silent.close();
    for (const call of calls) call.destroy();
    await server.close();
  });
});
