import { ideaOfMail, isAutomatic, newWords, titleOfMail } from './index';

const BY_HAND = { autoSubmitted: null, precedence: null, isOfList: false, contentType: 'text/plain', returnPath: 'a@b.test' };

describe('mail that nobody wrote', () => {
  it.each([
    // RFC 3834 5: any value but `no`
    ['an answer by itself', { autoSubmitted: 'auto-replied' }],
    ['a notice with parameters', { autoSubmitted: 'auto-generated; owner-email="x@y.test"' }],
    // RFC 5321 4.5.5: reports have an empty path back
    ['a report', { returnPath: '' }],
    ['a report by its type (RFC 6522)', { contentType: 'multipart/report; report-type=delivery-status' }],
    ['mass mail (common practice)', { precedence: 'Bulk' }],
    ['a list’s mail (RFC 2919)', { isOfList: true }],
  ])('%s', (_, heads) => expect(isAutomatic({ ...BY_HAND, ...heads })).toBe(true));

  it('is not mail by people, who may say so', () => {
    expect(isAutomatic(BY_HAND)).toBe(false);
    expect(isAutomatic({ ...BY_HAND, autoSubmitted: 'no' })).toBe(false);
    expect(isAutomatic({ ...BY_HAND, precedence: 'first-class' })).toBe(false);
  });
});

describe('the title of a mail', () => {
  it.each([
    ['Re: AW: Fwd: New oven', 'New oven'],
    ['RE[2]: New\r\n oven', 'New oven'],
    ['Remember the oven', 'Remember the oven'],
    ['Reparatur: der Ofen', 'Reparatur: der Ofen'],
  ])('%j is %j', (subject, title) => expect(titleOfMail(subject, '')).toBe(title));

  it('is the first line where there is no subject, and empty where nothing is said', () => {
    expect(titleOfMail(' Re: ', '\n> quoted\n  A clip, please\nmore')).toBe('A clip, please');
    expect(titleOfMail('', ' \n')).toBe('');
    expect([...titleOfMail('🍞'.repeat(300), '')]).toHaveLength(200);
  });
});

describe('an idea by mail', () => {
  it.each([
    ['Idea: the oven at night', 'the oven at night'],
    ['Fwd: IDEA : the oven', 'the oven'],
    ['Idee: der Ofen', 'der Ofen'],
    ['Idea:', 'Show the oven'],
    ['An idea: the oven', undefined],
    ['Ideal: the oven', undefined],
    ['Ideas for March', undefined],
    ['', undefined],
  ])('%j is %j', (subject, idea) => expect(ideaOfMail(subject, '\nShow the oven\nat night')).toBe(idea));
});

describe('what is new in an answer', () => {
  it.each([
    ['On Tue, 9 Mar 2027 at 10:15, Quillhaven <kiln@ask.test> wrote:'],
    ['On Tue, 9 Mar 2027 at 10:15,\nQuillhaven\n<kiln@ask.test> wrote:'],
    ['Am 09.03.2027 um 10:15 schrieb Quillhaven <kiln@ask.test>:'],
    ['-----Original Message-----'],
    ['-------- Ursprüngliche Nachricht --------'],
    ['________________________________'],
    ['From: Quillhaven <kiln@ask.test>\nSent: Tuesday'],
    ['*Von:* Quillhaven\n*Gesendet:* Dienstag'],
    ['-- '],
    ['> Which oven?'],
  ])('ends before %j', (line) => {
    const rest = line.startsWith('>') ? '' : '\nWhich oven is it?\n> and when?';
    expect(newWords(`The left one.\r\n\r\nBoth are hot.\r\n\r\n${line}${rest}`)).toBe('The left one.\n\nBoth are hot.');
  });

  it('keeps answers between quoted lines', () => {
    expect(newWords('> Which oven?\nThe left one.\n> When?\nOn Friday we said: at nine.')).toBe(
      'The left one.\nOn Friday we said: at nine.',
    );
  });

  it('keeps words that only look like the start of another mail', () => {
    const text = 'From: our shop to yours.\nOn Monday we bake.\nAm Montag: frei.';
    expect(newWords(text)).toBe(text);
  });

  it('is the whole where nothing else is left', () => {
    expect(newWords('> only this')).toBe('> only this');
  });

  it('takes its time by the length of the text alone', () => {
    const long = 'On '.repeat(200_000);
    expect(newWords(long)).toBe(long.trim());
    expect(newWords(`${'On x\n'.repeat(50_000)}end`).endsWith('end')).toBe(true);
  });
});
