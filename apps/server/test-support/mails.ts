/**
 * Mails of the shapes that mail programs make: multiparts within multiparts, names in other scripts, pictures in the text, answers, machines. The encoded
 * words of RFC 2047 8 and the names of RFC 2231 3 and 4.1 stand here as those documents give them; the rest is our own.
 */
const PNG = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
const PDF = Buffer.from('%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF\n').toString('base64');

export interface Written {
  readonly from?: string;
  readonly to?: string;
  readonly subject?: string;
  readonly id?: string;
  readonly heads?: readonly string[];
  /** heads of the content, an empty line, and the content */
  readonly content: readonly string[];
}

/** A mail as it goes over the wire. */
export const mailOf = ({
  from = 'Contact AAA <contact@aaa.test>',
  to = 'aaa@ask.zesting.test',
  subject,
  id,
  heads = [],
  content,
}: Written): string =>
  [
    `From: ${from}`,
    `To: ${to}`,
    ...(subject === undefined ? [] : [`Subject: ${subject}`]),
    ...(id === undefined ? [] : [`Message-ID: ${id}`]),
    'Date: Mon, 1 Mar 2027 08:55:00 +0000',
    'MIME-Version: 1.0',
    ...heads,
    ...content,
    '',
  ].join('\r\n');

export const plain = (...lines: string[]): string[] => ['Content-Type: text/plain; charset=utf-8', '', ...lines];
export const multipart = (kind: string, boundary: string, ...parts: (readonly string[])[]): string[] => [
  `Content-Type: multipart/${kind}; boundary="${boundary}"`,
  '',
  ...parts.flatMap((part) => [`--${boundary}`, ...part]),
  `--${boundary}--`,
];
const file = (type: string, heads: readonly string[], base64: string): string[] => [
  `Content-Type: ${type}`,
  ...heads,
  'Content-Transfer-Encoding: base64',
  '',
  base64,
];
export const png = (heads: readonly string[], type = 'image/png'): string[] => file(type, heads, PNG);

/** What is to become of a mail. */
export interface Expected {
  readonly as: 'request' | 'automatic' | 'unknown_sender' | 'refused';
  readonly title?: string;
  readonly words?: string | RegExp;
  readonly name?: string;
  /** by name */
  readonly files?: readonly string[];
  readonly notTaken?: string;
  /** the answer of SMTP to one that is refused */
  readonly reply?: RegExp;
}

export interface MailCase {
  readonly says: string;
  readonly raw: string;
  /** the sender of the envelope */
  readonly returnPath?: string;
  readonly expected: Expected;
}

export const MAILS: readonly MailCase[] = [
  {
    says: 'plain text',
    raw: mailOf({ subject: 'A clip of the oven', content: plain('Hello,', '', 'we would like a clip.') }),
    expected: { as: 'request', title: 'A clip of the oven', words: 'Hello,\n\nwe would like a clip.', files: [] },
  },
  {
    says: 'no subject',
    raw: mailOf({ content: plain('Opening hours changed', 'From Monday on: 8 to 6.') }),
    expected: { as: 'request', title: 'Opening hours changed' },
  },
  {
    says: 'neither subject nor words, but a picture',
    raw: mailOf({ content: png(['Content-Disposition: attachment; filename="oven.png"']) }),
    expected: { as: 'request', title: 'A mail without a subject', files: ['oven.png'] },
  },
  {
    says: 'words in two shapes, of which the plain ones count',
    raw: mailOf({
      subject: 'Two shapes',
      content: multipart('alternative', 'a', plain('The plain words.'), ['Content-Type: text/html', '', '<p>The <b>other</b> words.</p>']),
    }),
    expected: { as: 'request', words: 'The plain words.', files: [] },
  },
  {
    says: 'words as HTML alone, with a script that nobody runs',
    raw: mailOf({
      subject: 'HTML alone',
      content: [
        'Content-Type: text/html; charset=utf-8',
        '',
        '<style>p{}</style><script>alert(1)</script><p>Bread &amp; rolls</p><p>on Friday</p>',
      ],
    }),
    expected: { as: 'request', words: /^Bread & rolls\s+on Friday$/ },
  },
  {
    says: 'mixed around related around alternative, with a picture in the text and a paper',
    raw: mailOf({
      subject: 'Nested',
      content: multipart(
        'mixed',
        'm',
        multipart(
          'related',
          'r',
          multipart('alternative', 'a', plain('See the picture.'), ['Content-Type: text/html', '', '<p>See <img src="cid:p1"></p>']),
          png(['Content-ID: <p1>', 'Content-Disposition: inline; filename="loaf.png"']),
        ),
        file('application/pdf', ['Content-Disposition: attachment; filename="order.pdf"'], PDF),
      ),
    }),
    expected: { as: 'request', words: 'See the picture.', files: ['loaf.png', 'order.pdf'] },
  },
  {
    says: 'encoded words of RFC 2047 8 in sender and subject',
    raw: mailOf({
      from: '=?ISO-8859-1?Q?Keld_J=F8rn_Simonsen?= <keld@aaa.test>',
      subject: '=?ISO-8859-1?B?SWYgeW91IGNhbiByZWFkIHRoaXMgeW8=?=\r\n =?ISO-8859-2?B?dSB1bmRlcnN0YW5kIHRoZSBleGFtcGxlLg==?=',
      content: plain('Hello'),
    }),
    expected: { as: 'unknown_sender', title: 'If you can read this you understand the example.', name: 'Keld Jørn Simonsen' },
  },
  {
    says: 'a name in pieces and in another script (RFC 2231 3 and 4.1)',
    raw: mailOf({
      subject: 'Names',
      content: multipart(
        'mixed',
        'm',
        plain('Two files.'),
        png(["Content-Disposition: attachment; filename*=us-ascii'en-us'This%20is%20%2A%2A%2Afun%2A%2A%2A.png"]),
        png(['Content-Disposition: attachment;', " filename*0*=utf-8'de'Br%C3%B6t;", ' filename*1*=chen%20am;', ' filename*2=" Tag.png"']),
      ),
    }),
    expected: { as: 'request', files: ['Brötchen am Tag.png', 'This is ***fun***.png'] },
  },
  {
    says: 'a file name as an encoded word, which RFC 2047 forbids and programs write',
    raw: mailOf({
      subject: 'Odd name',
      content: multipart(
        'mixed',
        'm',
        plain('One file.'),
        png(['Content-Disposition: attachment; filename="=?UTF-8?B?QsO8Y2hlci5wbmc=?="']),
      ),
    }),
    expected: { as: 'request', files: ['Bücher.png'] },
  },
  {
    says: 'a file name in the type alone, and one without a name',
    raw: mailOf({
      subject: 'Old name',
      content: multipart(
        'mixed',
        'm',
        plain('Files.'),
        png([], 'image/png; name="old.png"'),
        file('application/pdf', ['Content-Disposition: attachment'], PDF),
      ),
    }),
    expected: { as: 'request', files: ['old.png', 'paper.pdf'] },
  },
  {
    says: 'a file name that would climb out of its folder',
    raw: mailOf({
      subject: 'Climbing',
      content: multipart('mixed', 'm', plain('One file.'), png(['Content-Disposition: attachment; filename="../../etc/oven.png"'])),
    }),
    expected: { as: 'request', files: [/* its separators are left out */ '....etcoven.png'] },
  },
  {
    says: 'ISO 8859-1 as quoted-printable',
    raw: mailOf({
      subject: 'Umlauts',
      content: [
        'Content-Type: text/plain; charset=iso-8859-1',
        'Content-Transfer-Encoding: quoted-printable',
        '',
        'Br=F6tchen f=FCr m=',
        'orgen',
      ],
    }),
    expected: { as: 'request', words: 'Brötchen für morgen' },
  },
  {
    says: 'what was handed on, whole',
    raw: mailOf({
      subject: 'Fwd: Spring fair',
      content: plain(
        'Can you do this?',
        '',
        '---------- Forwarded message ---------',
        'From: Town <town@fair.test>',
        'The fair is on 3 April.',
      ),
    }),
    expected: { as: 'request', title: 'Spring fair', words: /The fair is on 3 April\.$/ },
  },
  {
    says: 'a mail as a file of a mail',
    raw: mailOf({
      subject: 'With a mail in it',
      content: multipart('mixed', 'm', plain('Look inside.'), [
        'Content-Type: message/rfc822',
        'Content-Disposition: attachment',
        '',
        'From: Town <town@fair.test>',
        'Subject: Inner',
        '',
        'Inner words.',
      ]),
    }),
    expected: { as: 'request', title: 'With a mail in it', files: ['mail.eml'] },
  },
  {
    says: 'a program and a page among the files, which are not taken and said',
    raw: mailOf({
      subject: 'Mixed files',
      content: multipart(
        'mixed',
        'm',
        plain('Three files.'),
        png(['Content-Disposition: attachment; filename="good.png"']),
        file(
          'application/octet-stream',
          ['Content-Disposition: attachment; filename="setup.exe"'],
          Buffer.from('MZ\u0000\u0001bad').toString('base64'),
        ),
        file(
          'text/html',
          ['Content-Disposition: attachment; filename="page.html"'],
          Buffer.from('<!doctype html><script>1</script>').toString('base64'),
        ),
      ),
    }),
    expected: {
      as: 'request',
      files: ['good.png'],
      notTaken: 'setup.exe: this kind of file is not taken, or it is damaged\npage.html: this kind of file is not taken, or it is damaged',
    },
  },
  {
    says: 'an answer by itself (RFC 3834)',
    raw: mailOf({ subject: 'Away until Monday', heads: ['Auto-Submitted: auto-replied'], content: plain('I am away.') }),
    expected: { as: 'automatic' },
  },
  {
    says: 'a report of a mail server, with an empty sender (RFC 3464)',
    returnPath: '',
    raw: mailOf({
      from: 'Mail system <postmaster@aaa.test>',
      subject: 'Undelivered',
      content: multipart('report; report-type=delivery-status', 'm', plain('It did not arrive.'), [
        'Content-Type: message/delivery-status',
        '',
        'Final-Recipient: rfc822; x@aaa.test',
        'Action: failed',
        'Status: 5.1.1',
      ]),
    }),
    expected: { as: 'automatic' },
  },
  {
    says: 'a list’s mail (RFC 2919)',
    raw: mailOf({ subject: 'News', heads: ['List-Id: <news.fair.test>', 'Precedence: bulk'], content: plain('Buy now.') }),
    expected: { as: 'automatic' },
  },
  {
    says: 'heads that are broken and a part that never ends',
    raw: mailOf({
      subject: 'Broken =?utf-8?Q?half',
      heads: ['This is no head', 'X-Odd: \u0001'],
      content: ['Content-Type: multipart/mixed; boundary="never"', '', '--never', 'Content-Type: text/plain', '', 'Still readable.'],
    }),
    expected: { as: 'request', words: 'Still readable.' },
  },
  {
    says: 'nobody as its sender',
    raw: mailOf({ from: '', subject: 'From nobody', content: plain('Hello') }),
    returnPath: 'x@y.test',
    expected: { as: 'refused', reply: /^554 5\.7\.1/ },
  },
];
