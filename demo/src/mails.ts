import { mailAddress, readMail, takeMail, type App } from '@zesting/server';
import type { ClientKey } from './clients.js';
import { drawPicture } from './pictures.js';
import type { Setup } from './setup.js';

interface MailStory {
  readonly to: ClientKey;
  readonly from: string;
  readonly subject: string;
  readonly words: readonly string[];
  readonly heads?: readonly string[];
  /** names of pictures that come with it */
  readonly pictures?: readonly string[];
}

/** What came by mail: a request with pictures, one of somebody whom nobody knows, and an answer by a machine. */
const MAILS: readonly MailStory[] = [
  {
    to: 'loom',
    from: 'Maud Ellery <maud@copperloom.test>',
    subject: 'The blue warp is off the loom',
    words: [
      'Hello all,',
      '',
      'the blue warp came off the big loom this morning, eleven metres of it. Could we show it before it is cut?',
      'Two photographs are with this mail. The light was bad; the blue is really like that.',
      '',
      'Maud',
    ],
    pictures: ['blue-warp.png', 'selvedge.png'],
  },
  {
    to: 'tide',
    from: 'Petra Lindqvist <petra@quaywalks.test>',
    subject: 'A walk along the old quay, with your photographs?',
    words: ['Good morning,', '', 'I lead walks along the old quay. Would the museum join in for one in spring?', '', 'Petra Lindqvist'],
  },
  {
    to: 'kiln',
    from: 'Greta Vosper <greta@kilnlane.test>',
    subject: 'Out of the bakehouse: We have a question',
    words: ['I am back on Monday. For bread, ring the shop.'],
    heads: ['Auto-Submitted: auto-replied'],
  },
];

/** Takes the story’s mails in, where the application takes mail in. */
export async function addMails(app: App, setup: Setup): Promise<void> {
  for (const story of MAILS) {
    const [client] = await app.read<{ code: string }>('select code from clients where id = $1', [setup.clients[story.to].id]);
    const to = client && mailAddress(app.config, client.code.toLowerCase());
    if (!to) return;
    const raw = await rawOf(story, to);
    await takeMail(app, { mail: await readMail(raw, story.from), raw, to });
  }
}

/** The mail as it goes over the wire. */
async function rawOf({ from, subject, words, heads = [], pictures = [] }: MailStory, to: string): Promise<Buffer> {
  const files = await Promise.all(
    pictures.map(async (name, index) => [
      '--part',
      'Content-Type: image/png',
      `Content-Disposition: attachment; filename="${name}"`,
      'Content-Transfer-Encoding: base64',
      '',
      (await drawPicture('threads', 'dusk', index, 720, 900)).toString('base64'),
    ]),
  );
  const lines = [
    `From: ${from}`,
    `To: ${to}`,
    `Subject: ${subject}`,
    `Message-ID: <${subject.replace(/\W+/g, '-')}@story.test>`,
    'MIME-Version: 1.0',
    ...heads,
    'Content-Type: multipart/mixed; boundary="part"',
    '',
    '--part',
    'Content-Type: text/plain; charset=utf-8',
    '',
    ...words,
    ...files.flat(),
    '--part--',
    '',
  ];
  return Buffer.from(lines.join('\r\n'));
}
