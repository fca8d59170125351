import { mkdtempSync } from 'node:fs';
import { connect, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createTransport } from 'nodemailer';
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
  const folder = mkdtempSync(join(tmpdir(), 'zesting-mail-'));

  beforeAll(async () => {
    smtpPort = await freePort();
    const webPort = await freePort();
    address = `http://127.0.0.1:${webPort}`;
    catcher = await startMailCatcher({ smtpPort, webPort, folder });
  });
  afterAll(() => catcher.close());

  const send = (messageId: string, to: string, subject: string) =>
    createTransport({ host: '127.0.0.1', port: smtpPort, secure: false, ignoreTLS: true }).sendMail({
      from: 'desk@zesting.test',
      to,
      subject,
      messageId,
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
});
