import { mailBodies } from './mail.js';

describe('the body of a mail', () => {
  const mail = {
    to: 'a@b.test',
    subject: 'S',
    paragraphs: ['Hello Ann,', 'One <b>\nTwo & "three"'],
    links: [{ text: 'Open it', address: 'https://x.test/a?b=1&c=2' }],
  };

  it('is plain text with each link on its own line', () => {
    expect(mailBodies(mail).text).toBe('Hello Ann,\n\nOne <b>\nTwo & "three"\n\nOpen it: https://x.test/a?b=1&c=2');
  });

  it('escapes what people typed in its marked-up form', () => {
    expect(mailBodies(mail).html).toBe(
      '<p>Hello Ann,</p>\n<p>One &lt;b&gt;<br>Two &amp; &quot;three&quot;</p>\n<p><a href="https://x.test/a?b=1&amp;c=2">Open it</a></p>',
    );
  });
});
