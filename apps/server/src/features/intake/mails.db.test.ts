import { existsSync } from 'node:fs';
import { createTransport } from 'nodemailer';
import type { MailPage, RequestShape } from '@zesting/contract';
import { getValue } from '@zesting/core';
import { callerAs, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { mailOf, MAILS, multipart, plain, png, type MailCase } from '../../../test-support/mails.js';
import { Inbox, MAIL_LIMIT_BYTES } from '../../platform/mail/inbox.js';
import { Work } from '../../platform/work/work.js';
import { askBack, declineRequest } from './index.js';
import { clearMails } from './use-cases/clear-mails.js';
import { MAILS_AN_HOUR } from './use-cases/take-mail.js';

describe('by mail', () => {
  let scene: Scene;
  let manager: Caller;
  let port: number;
  beforeAll(async () => {
    scene = await makeScene({ env: { ZESTING_INBOX_PORT: '0' } });
    manager = await callerAs(scene, 'manager');
    port = scene.server.get(Inbox).port ?? 0;
  });
  afterAll(() => scene.close());
  // each hour has room for so many mails and receipts
  beforeEach(async () => {
    await scene.app.read('delete from incoming_mails');
    await scene.app.read("update requests set received_at = received_at - interval '2 hours'");
  });
  const namesOf = ({ files }: RequestShape) => files.map(({ name }) => name).sort();

  /** Sends as a mail server does. @returns what it was told at the end, `250 …` where it was taken */
  const send = async (raw: string | Buffer, { from = 'contact@aaa.test', to = ['aaa@ask.zesting.test'] } = {}): Promise<string> => {
    const transport = createTransport({ host: '127.0.0.1', port, ignoreTLS: true });
    try {
      return (await transport.sendMail({ envelope: { from, to }, raw })).response;
    } catch (error) {
      return (error as { response: string }).response;
    } finally {
      transport.close();
    }
  };
  const letter = (subject: string, words: string, more: Partial<Parameters<typeof mailOf>[0]> = {}) =>
    mailOf({ subject, content: ['Content-Type: text/plain; charset=utf-8', '', ...words.split('\n')], ...more });
  const newest = async (): Promise<RequestShape> => {
    const [row] = await scene.app.read<{ id: string }>('select id from requests order by number desc limit 1');
    return (await manager.call('GET', `/api/requests/${row?.id}`)).body as unknown as RequestShape;
  };
  const counts = async () =>
    (
      await scene.app.read<{ requests: number; mails: number }>(
        'select (select count(*)::int from requests) as requests, (select count(*)::int from incoming_mails) as mails',
      )
    )[0];
  const aside = async (state: string) => ((await manager.call('GET', `/api/mails?state=${state}`)).body as unknown as MailPage).items;
  /** Mails that wait to go out, newest last. */
  const outbox = (to: string) =>
    scene.app.read<{ payload: Record<string, string & string[]> }>(
      `select j.payload from graphile_worker._private_jobs j join graphile_worker._private_tasks t on t.id = j.task_id
       where t.identifier = 'mail_send' and j.payload ->> 'to' = $1 order by j.id`,
      [to],
    );

  it.each(MAILS.map((one): [string, MailCase] => [one.says, one]))('%s', async (_, { raw, returnPath = 'contact@aaa.test', expected }) => {
    const before = await counts();
    const reply = await send(raw, { from: returnPath });
    const after = await counts();
    if (expected.as === 'refused') {
      expect(reply).toMatch(expected.reply ?? /^5/);
      expect(after).toEqual(before);
      return;
    }
    expect(reply).toMatch(/^250 /);
    if (expected.as !== 'request') {
      const [mail] = await aside(expected.as === 'automatic' ? 'automatic' : 'waiting');
      expect(mail).toMatchObject({ reason: expected.as === 'automatic' ? null : expected.as });
      if (expected.title) expect(mail?.subject).toBe(expected.title);
      if (expected.name) expect(mail?.fromName).toBe(expected.name);
      expect(after?.requests).toBe(before?.requests);
      return;
    }
    const request = await newest();
    expect(after?.requests).toBe((before?.requests ?? 0) + 1);
    expect(request).toMatchObject({ way: 'mail', requesterName: 'Contact AAA', requesterEmail: 'contact@aaa.test', state: 'new' });
    if (expected.title) expect(request.title).toBe(expected.title);
    if (expected.words)
      expect(request.answers['words']).toEqual(expected.words instanceof RegExp ? expect.stringMatching(expected.words) : expected.words);
    if (expected.files) expect(namesOf(request)).toEqual(expected.files);
    expect(request.answers['not_taken']).toBe(expected.notTaken);
  });

  it('has twenty shapes of mail to it', () => expect(MAILS).toHaveLength(20));

  it('a mail that is too large is refused with the reason, before and after it was sent', async () => {
    const large = letter('Large', `${'x'.repeat(900)}\n`.repeat(Math.ceil(MAIL_LIMIT_BYTES / 900)));
    expect(await send(large)).toMatch(/^552 /);
    expect(await counts()).toMatchObject({ mails: 0 });
  });

  it('an address that nobody has is refused, one of several that are known is not', async () => {
    const unknown = { from: 'contact@aaa.test', to: ['zzz@ask.zesting.test'] };
    expect(await send(letter('Nobody', 'Hello'), unknown)).toMatch(/^550 5\.1\.1/);
    expect(await send(letter('Elsewhere', 'Hello'), { ...unknown, to: ['aaa@elsewhere.test'] })).toMatch(/^550 5\.1\.1/);
    expect(await send(letter('Plus', 'Hello'), { ...unknown, to: ['AAA+spring@Ask.Zesting.test'] })).toMatch(/^250 /);
    expect((await newest()).title).toBe('Plus');
  });

  it('the same mail twice, also at once, is one; the receipt answers it and takes answers', async () => {
    const raw = letter('Once', 'Only once.', { id: '<once@aaa.test>' });
    const before = await counts();
    const replies = await Promise.all([send(raw), send(raw), send(raw)]);
    expect(replies.every((reply) => reply.startsWith('250 '))).toBe(true);
    expect((await counts())?.requests).toBe((before?.requests ?? 0) + 1);
    const receipt = (await outbox('contact@aaa.test')).at(-1)?.payload;
    const { number } = await newest();
    expect(receipt).toMatchObject({
      subject: `We have your request no. ${number} for Client AAA`,
      inReplyTo: '<once@aaa.test>',
      replyTo: 'aaa@ask.zesting.test',
    });
  });

  it('an answer finds its request by its heads, whatever its subject says; only what is new is kept', async () => {
    await send(letter('The clip', 'A clip, please.', { id: '<first@aaa.test>' }));
    const { id } = await newest();
    getValue(await askBack(scene.app, scene.people.manager, id, 'Which oven?'));
    const question = (await outbox('contact@aaa.test')).at(-1)?.payload;
    expect(question).toMatchObject({ replyTo: 'aaa@ask.zesting.test' });
    const before = await counts();
    const words = 'The left one.\n\nOn Mon, 1 Mar 2027 at 09:00, Agency <desk@zesting.test> wrote:\n> Which oven?';
    await send(letter('Something else', words, { id: '<second@aaa.test>', heads: [`In-Reply-To: ${question?.['messageId']}`] }));
    // further down the thread, where only the first mail is named
    await send(letter('Re: The clip', 'And at night.', { heads: ['References: <unknown@x.test> <first@aaa.test>'] }));
    expect((await counts())?.requests).toBe(before?.requests);
    expect(await newest()).toMatchObject({
      id,
      state: 'new',
      isRead: false,
      messages: [{ text: 'Which oven?' }, { author: 'requester', name: 'Contact AAA', text: 'The left one.' }, { text: 'And at night.' }],
    });
    // a machine's answer is none: it stays the requester's turn
    getValue(await askBack(scene.app, scene.people.manager, id, 'When?'));
    const heads = ['In-Reply-To: <first@aaa.test>', 'Auto-Submitted: auto-replied'];
    const queued = (await outbox('contact@aaa.test')).length;
    await send(letter('Away', 'I am away.', { heads }));
    expect(await newest()).toMatchObject({ state: 'asked_back' });
    expect(await outbox('contact@aaa.test')).toHaveLength(queued);
    // what was decided takes a word too, and stays decided
    getValue(await declineRequest(scene.app, scene.people.manager, id, 'No time.'));
    await send(letter('Re: The clip', 'A pity.', { heads: ['In-Reply-To: <first@aaa.test>'] }));
    expect(await newest()).toMatchObject({
      state: 'declined',
      messages: expect.arrayContaining([expect.objectContaining({ text: 'A pity.' })]),
    });
  });

  it('an answer to another client’s request is none here, one by a stranger waits and is put to it by one click', async () => {
    await send(letter('Secret of A', 'Words.', { id: '<secret@aaa.test>' }));
    const { id } = await newest();
    const heads = ['In-Reply-To: <secret@aaa.test>'];
    await send(letter('Hello B', 'Words.', { heads, from: 'contact@bbb.test' }), { to: ['bbb@ask.zesting.test'] });
    const [elsewhere] = await scene.app.read<{ client_id: string; title: string }>(
      'select client_id, title from requests order by number desc limit 1',
    );
    expect(elsewhere).toEqual({ client_id: scene.b.id, title: 'Hello B' });

    await send(letter('Re: Secret of A', 'Let me in.', { heads, from: 'Eve <eve@x.test>' }));
    const [waiting] = await aside('waiting');
    expect(waiting).toMatchObject({ reason: 'other_sender', answers: 'Secret of A', fromName: 'Eve' });
    const taken = await manager.call('POST', `/api/mails/${waiting?.id}/take`, { body: { asContact: false } });
    expect(taken.body).toEqual({ requestId: id });
    const request = (await manager.call('GET', `/api/requests/${id}`)).body as unknown as RequestShape;
    expect(request.messages.map(({ name, text }) => [name, text])).toEqual([['Eve', 'Let me in.']]);
    expect((await manager.call('POST', `/api/mails/${waiting?.id}/take`, { body: { asContact: false } })).body['code']).toBe(
      'mail.sorted_already',
    );
    expect((await manager.call('POST', `/api/mails/${waiting?.id}/leave`)).body['code']).toBe('mail.sorted_already');
  });

  it('who is not known waits for one click, with all that came; who may not ask waits too; both can be left', async () => {
    const picture = MAILS.find(({ says }) => says.startsWith('mixed around'))?.raw ?? '';
    await send(
      picture.replace('Contact AAA <contact@aaa.test>', 'New Face <new@face.test>').replace('Subject: Nested', 'Subject: From a new face'),
    );
    const [mail] = await aside('waiting');
    expect(mail).toMatchObject({
      reason: 'unknown_sender',
      fromEmail: 'new@face.test',
      files: ['loaf.png', 'order.pdf'],
      text: 'See the picture.',
    });
    const noticed = await scene.app.read<{ heading: string }>('select heading from notices where key = $1 and sent_at is null', [
      `mails:${scene.a.id}`,
    ]);
    expect(noticed).toContainEqual({ heading: 'A mail waits: From a new face' });
    expect((await manager.call('POST', `/api/mails/${mail?.id}/leave`)).status).toBe(204);
    expect(await aside('waiting')).toEqual([]);
    expect(await aside('left')).toHaveLength(1);
    expect((await manager.call('POST', `/api/mails/${mail?.id}/wait`)).status).toBe(204);
    const source = await manager.call('GET', `/api/mails/${mail?.id}/source`);
    expect(source.headers.get('content-disposition')).toMatch(/^attachment/);
    expect(source.body['text']).toContain('Subject: From a new face');
    const { body } = await manager.call('POST', `/api/mails/${mail?.id}/take`, { body: { asContact: true } });
    expect(await newest()).toMatchObject({
      id: body['requestId'],
      way: 'mail',
      requesterName: 'New Face',
      requesterEmail: 'new@face.test',
    });
    expect(namesOf(await newest())).toEqual(['loaf.png', 'order.pdf']);
    expect((await outbox('new@face.test')).at(-1)?.payload['subject']).toContain('We have your request');

    // who was taken as a contact may ask from now on, and no more than that
    const from = { fromName: 'New Face', fromEmail: 'new@face.test' };
    expect(await scene.app.read("select can_ask, can_view, can_sign_off from contacts where email = 'new@face.test'")).toEqual([
      { can_ask: true, can_view: false, can_sign_off: false },
    ]);
    await send(letter('Once more', 'Please.', { from: `${from.fromName} <${from.fromEmail}>` }), { from: from.fromEmail });
    expect(await newest()).toMatchObject({ title: 'Once more', requesterName: 'New Face' });

    await scene.app.read('update contacts set can_ask = false where id = $1', [scene.a.contactId]);
    await send(letter('May I?', 'Please.'));
    expect(await aside('waiting')).toMatchObject([{ reason: 'may_not_ask', subject: 'May I?' }]);
    await scene.app.read('update contacts set can_ask = true where id = $1', [scene.a.contactId]);
  });

  it('is cleared away once nobody looks for it any more; what waits or was taken stays', async () => {
    for (const subject of ['Left long ago', 'Waits long'])
      await send(letter(subject, 'Words.', { from: 'x@y.test' }), { from: 'x@y.test' });
    await send(letter('Taken long ago', 'Words.'));
    const left = (await aside('waiting')).find(({ subject }) => subject === 'Left long ago');
    await manager.call('POST', `/api/mails/${left?.id}/leave`);
    const hashes = await scene.app.read<{ subject: string; hash: string }>('select subject, hash from incoming_mails order by subject');
    const there = () => hashes.map(({ hash }) => existsSync(scene.app.files.pathOf(hash)));
    expect(await clearMails(scene.app)).toBe(0);
    await scene.app.read("update incoming_mails set received_at = received_at - interval '91 days'");
    expect(await clearMails(scene.app)).toBe(1);
    expect(
      (await scene.app.read<{ subject: string }>('select subject from incoming_mails order by subject')).map(({ subject }) => subject),
    ).toEqual(['Taken long ago', 'Waits long']);
    expect(there()).toEqual([false, true, true]);
  });

  it('more mail than a person writes is asked to come later', async () => {
    await scene.app.read(
      `insert into incoming_mails (client_id, message_id, from_name, from_email, subject, text, files, hash, bytes, state, received_at)
       select $1, 'n' || n, '', '', '', '', '[]', '', 0, 'automatic', $2::timestamptz - interval '1 minute' from generate_series(1, ${MAILS_AN_HOUR}) n`,
      [scene.a.id, scene.app.clock.now()],
    );
    expect(await send(letter('One more', 'Please.'))).toMatch(/^451 4\.7\.0/);
  });

  it('what cannot be kept is left with its sender', async () => {
    await scene.app.read('alter table incoming_mails rename to elsewhere');
    const reply = await send(letter('Lost?', 'No.', { id: '<lost@aaa.test>' }));
    await scene.app.read('alter table elsewhere rename to incoming_mails');
    expect(reply).toMatch(/^451 4\.3\.0/);
    expect(await send(letter('Lost?', 'No.', { id: '<lost@aaa.test>' }))).toMatch(/^250 /);
    expect((await newest()).title).toBe('Lost?');
  });

  it('heads that a database would not take do no harm', async () => {
    const id = `<${'x'.repeat(5_000)}@aaa.test>`;
    const heads = ['Subject: =?utf-8?Q?Half=00and=07half?=', `In-Reply-To: ${id}`];
    const raw = letter('', 'Words.', { heads, id, from: '=?utf-8?Q?Con=00tact?= <contact@aaa.test>' }).replace('Subject: \r\n', '');
    expect([await send(raw), await send(raw)]).toEqual([expect.stringMatching(/^250 /), expect.stringMatching(/^250 /)]);
    expect((await newest()).title).toBe('Half and half');
    expect(await counts()).toMatchObject({ mails: 1 });
  });

  it('a reader that ends on the way leaves the mail with its sender, and the next one is read', async () => {
    const ask = jest.spyOn(scene.server.get(Work), 'ask').mockRejectedValueOnce(new Error('the worker ended'));
    expect(await send(letter('Read late', 'Words.'))).toMatch(/^451 4\.3\.0/);
    ask.mockRestore();
    expect(await send(letter('Read late', 'Words.'))).toMatch(/^250 /);
    expect((await newest()).title).toBe('Read late');
  });

  it('addresses are said to those who manage the client', async () => {
    const { body } = await manager.call('GET', '/api/mails/addresses');
    expect(body).toEqual([{ clientId: scene.a.id, address: 'aaa@ask.zesting.test' }]);
  });

  describe('marked as an idea', () => {
    const shelf = () =>
      scene.app.read<{ title: string; note: string; by: string; client: string }>(
        `select i.title, i.note, coalesce(a.name, x.name) as by, c.code as client from ideas i left join people a on a.id = i.author_id
         left join contacts x on x.id = i.contact_id join clients c on c.id = i.client_id order by i.created_at, i.title`,
      );
    beforeEach(async () => {
      // in one transaction: a job may be making a picture's sizes meanwhile
      await scene.app.read(
        'select from assets for update; delete from asset_sizes; delete from assets where idea_id is not null; delete from ideas',
      );
    });

    it('is on the shelf of the client, with what came along; a contact is thanked, and asks nothing', async () => {
      const before = await counts();
      await scene.app.read("update contacts set can_ask = true where email = 'contact@aaa.test'");
      expect(await send(letter('Idea: The oven at night', 'When nobody is there.\n\n-- \nC.'))).toMatch(/^250/);
      expect(await shelf()).toEqual([{ title: 'The oven at night', note: 'When nobody is there.', by: 'Contact AAA', client: 'AAA' }]);
      expect((await counts())?.requests).toBe(before?.requests);
      expect((await outbox('contact@aaa.test')).at(-1)?.payload['subject']).toBe('On our list of ideas: The oven at night');
      const [mail] = await scene.app.read('select state, idea_id is not null as kept from incoming_mails');
      expect(mail).toEqual({ state: 'taken', kept: true });
    });

    it('comes from the agency too: from who works for the client, and from nobody else', async () => {
      expect(await send(letter('IDEA: By a maker', 'x', { from: 'Staff <staff@agency.test>' }), { from: 'staff@agency.test' })).toMatch(
        /^250/,
      );
      await send(letter('Idea: By one who does not', 'x', { from: 'F <freelance@agency.test>' }), { from: 'freelance@agency.test' });
      await send(letter('Idea: By a stranger', 'x', { from: 'S <s@else.test>' }), { from: 's@else.test' });
      expect((await shelf()).map(({ title }) => title)).toEqual(['By a maker']);
      expect((await aside('waiting')).map(({ subject }) => subject).sort()).toEqual(['Idea: By a stranger', 'Idea: By one who does not']);
    });

    it('keeps its files, which whoever manages the client can open, and nobody else', async () => {
      const content = multipart('mixed', 'b', plain('Look'), png(['Content-Disposition: attachment; filename="oven.png"']));
      await send(mailOf({ subject: 'Idea: See this', content, from: 'Lead <lead@agency.test>' }), { from: 'lead@agency.test' });
      const [idea] = await scene.app.read<{ id: string }>('select id from ideas');
      const { body } = await manager.call('GET', `/api/ideas/${idea?.id}`);
      const [file] = body['attached'] as { assetId: string; name: string }[];
      expect([file?.name, body['files']]).toEqual(['oven.png', 1]);
      expect((await manager.call('GET', `/api/files/${file?.assetId}`)).status).toBe(200);
      const freelance = await callerAs(scene, 'freelance');
      expect((await freelance.call('GET', `/api/files/${file?.assetId}`)).status).toBe(404);
    });
  });
});
