import { mkdtempSync } from 'node:fs';
import { connect, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { simpleParser, type ParsedMail } from 'mailparser';
import { createTransport } from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import { startMailCatcher, type MailCatcher } from './mail-catcher';
import { MailStore } from './mail-store';

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

describe('the mail catcher', () => {
  let catcher: MailCatcher;
  let address: string;
  let smtpPort: number;
  let inbox: SMTPServer;
  const received: ParsedMail[] = [];
  const folder = mkdtempSync(join(tmpdir(), 'zesting-mail-'));

  beforeAll(async () => {
    smtpPort = await freePort();
    const webPort = await freePort();
    address = `http://127.0.0.1:${webPort}`;
    inbox = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS', 'AUTH'],
      onRcptTo: ({ address: to }, _session, done) => done(to.startsWith('kiln@') ? null : new Error('Nobody has this address')),
      onData: (stream, _session, done) => void simpleParser(stream).then((mail) => (received.push(mail), done()), done),
    });
    const inboxPort = await freePort();
    await new Promise<void>((resolve) => inbox.listen(inboxPort, '127.0.0.1', resolve));
    catcher = await startMailCatcher({ smtpPort, webPort, folder, inboxPort });
  });
  afterAll(async () => {
    await catcher.close();
    await new Promise<void>((resolve) => inbox.close(resolve));
  });

  const send = (messageId: string, to: string, subject: string, replyTo?: string) =>
    createTransport({ host: '127.0.0.1', port: smtpPort, secure: false, ignoreTLS: true }).sendMail({
      from: 'desk@zesting.test',
      to,
      subject,
      messageId,
      ...(replyTo ? { replyTo } : {}),
      text: 'Plain',
      html: '<p><a href="http://127.0.0.1/room/x">Look</a></p>',
    });

  it('receives real SMTP and shows the mail with its links, newest first', async () => {
    await send('<1@x.test>', 'ann@a.test', 'First & <foremost>');
    await send('<2@x.test>', 'ben@b.test', 'Second');
    const page = await (await fetch(address)).text();
    expect(page.indexOf('Second')).toBeLessThan(page.indexOf('First &amp; &lt;foremost&gt;'));
    expect(page).toContain('<a href="http://127.0.0.1/room/x">Look</a>');
    const mine = (await (await fetch(`${address}/mails.json?to=ANN@a.test`)).json()) as { subject: string }[]; // CaughtMail
    expect(mine.map((mail) => mail.subject)).toEqual(['First & <foremost>']);
  });

  it('keeps a mail that arrives twice once, and shows it again after a new start', async () => {
    await send('<1@x.test>', 'ann@a.test', 'First & <foremost>');
    expect(new MailStore(folder).list().map((mail) => mail.messageId)).toEqual(['<2@x.test>', '<1@x.test>']);
  });

  it('goes on when a sender breaks off in the middle', async () => {
    await new Promise<void>((resolve) => {
      const socket = connect(smtpPort, '127.0.0.1', () => {
        socket.write('EHLO x\r\nMAIL FROM:<a@x.test>\r\nRCPT TO:<b@x.test>\r\nDATA\r\nSubject: half');
        setTimeout(() => socket.resetAndDestroy(), 50);
      });
      socket.once('close', () => resolve());
      socket.on('error', () => undefined);
    });
    await send('<3@x.test>', 'cem@c.test', 'After the break');
    const mine = (await (await fetch(`${address}/mails.json?to=cem@c.test`)).json()) as { subject: string }[]; // CaughtMail
    expect(mine.map((mail) => mail.subject)).toEqual(['After the break']);
  });

  it('writes a mail with files, and an answer that names what it answers; a refusal is said and nothing typed is lost', async () => {
    await send('<4@x.test>', 'dee@d.test', 'A question', 'kiln@ask.test');
    expect(await (await fetch(address)).text()).toContain('<a href="/write?answers=%3C4%40x.test%3E">Answer this mail</a>');
    const form = await (await fetch(`${address}/write?answers=${encodeURIComponent('<4@x.test>')}`)).text();
    for (const part of ['value="&lt;4@x.test&gt;"', 'value="dee@d.test"', 'value="kiln@ask.test"', 'value="Re: A question"', '&gt; Plain'])
      expect(form).toContain(part);
    const post = (to: string) => {
      const body = new FormData();
      const fields = { from: 'Dee <dee@d.test>', to, subject: 'Re: A question', text: 'Yes “please”', answers: '<4@x.test>' };
      for (const [name, value] of Object.entries(fields)) body.append(name, value);
      body.append('files', new Blob(['one']), 'Brötchen.txt');
      return fetch(`${address}/write`, { method: 'POST', body });
    };
    expect((await post('kiln@ask.test')).status).toBe(200);
    expect(received).toMatchObject([
      { inReplyTo: '<4@x.test>', text: 'Yes “please”', attachments: [{ filename: 'Brötchen.txt', content: Buffer.from('one') }] },
    ]);
    const refused = await post('zzz@ask.test');
    expect(refused.status).toBe(422);
    const said = await refused.text();
    for (const part of ['Nobody has this address', 'Yes “please”']) expect(said).toContain(part);
  });
});
