import type { Content } from '../content/index.js';
import { addDays, getDay } from '../time/index.js';
import { handOut, handOutText, isReady, isReadyByHand, preflight, type PreflightFacts } from './index.js';

const content: Content = {
  shared: { copy: 'Fresh on Saturday \n', media: [], disclosure: 'Advertisement' },
  channels: {
    feed: { copy: '', tags: ['rye', 'bread'], firstComment: ' Which one is yours? ', link: 'https://example.test/menu' },
    blog: { copy: 'The long one', tags: [], firstComment: '', link: '' },
  },
};
const fine: PreflightFacts = {
  pieceId: 'one',
  content,
  channelId: 'feed',
  rules: {
    copyLimit: 40,
    countsTags: false,
    tagLimit: 2,
    mediaLimit: null,
    minWidth: null,
    needsMedia: false,
    linksWork: false,
    ratio: '1:1',
    otherShapes: [],
    cutsMedia: false,
    clipMinSeconds: null,
    clipMaxSeconds: null,
    fileLimitMb: null,
  },
  client: { wordsNever: ['cheap'], wordsToUse: [], needsDisclosure: true },
  texts: [],
  media: [],
  links: new Map(),
  on: '2027-03-09',
  isSigned: true,
  sending: null,
  hasPassed: false,
  window: { notBeforeOn: null, notAfterOn: null },
  blackouts: [],
  others: [],
};
const codes = (more: Partial<PreflightFacts>) => preflight({ ...fine, ...more }).map(({ code, severity }) => `${severity} ${code}`);

describe('preflight', () => {
  it('finds nothing where nothing is wrong', () => {
    expect(preflight(fine)).toEqual([]);
    expect(isReady(preflight(fine))).toBe(true);
  });

  it('stops what is not signed, has passed, is empty, or is against the rules', () => {
    expect(codes({ isSigned: false, hasPassed: true })).toEqual(['must time_passed', 'must not_signed']);
    expect(codes({ content: { ...content, shared: { ...content.shared, copy: ' ' } } })).toEqual(['must empty']);
    expect(codes({ rules: { ...fine.rules, copyLimit: 10, needsMedia: true } })).toEqual(['must copy_long', 'must media_missing']);
    for (const more of [{ isSigned: false }, { hasPassed: true }]) expect(isReady(preflight({ ...fine, ...more }))).toBe(false);
  });

  it('stops what lacks a text that its format needs, or has one that is too long or against the client’s words', () => {
    const subject = { key: 'subject', name: 'Subject', isLong: false, prompt: '', limit: 10, isNeeded: true };
    const withSubject = (text: string) => ({
      texts: [subject],
      content: { ...content, shared: { ...content.shared, texts: [{ key: 'subject', name: 'Subject', text }] } },
    });
    expect(codes({ texts: [subject] })).toEqual(['must text_missing']);
    expect(codes({ texts: [{ ...subject, isNeeded: false }] })).toEqual([]);
    expect(codes(withSubject(' Rye now ! '))).toEqual([]);
    expect(codes(withSubject('Rye and more rye'))).toEqual(['must text_long']);
    expect(preflight({ ...fine, ...withSubject('So cheap') })).toMatchObject([{ code: 'word_never', place: 'text', what: 'cheap' }]);
    // what its format has no longer is still read, and goes out
    expect(codes({ ...withSubject('Too cheap for words'), texts: [] })).toEqual(['must word_never']);
  });

  it('hands out the texts besides the copy by their names, before it', () => {
    const written = { ...content, shared: { ...content.shared, texts: [{ key: 'subject', name: 'Subject', text: ' Rye ' }] } };
    expect(handOut(written, 'feed').texts).toEqual([{ name: 'Subject', text: 'Rye' }]);
    expect(handOutText(written, 'feed')).toMatch(/^Subject: Rye\n\nFresh on Saturday/);
  });

  it('says what somebody may have meant, after what must be settled', () => {
    const other = { pieceId: 'two', title: 'Bread, once more', copy: 'fresh on  saturday' };
    const found = preflight({ ...fine, isSigned: false, blackouts: ['Stocktaking'], others: [other] });
    expect(found.map(({ code, what }) => [code, what])).toEqual([
      ['not_signed', undefined],
      ['blackout', 'Stocktaking'],
      ['twin', 'Bread, once more'],
    ]);
    expect(isReady(preflight({ ...fine, blackouts: ['Stocktaking'], others: [other] }))).toBe(true);
  });

  it('says which pictures were to be renewed by then, and stops nothing for it', () => {
    const medium = {
      name: 'loaf.jpg',
      alt: 'A loaf',
      mime: 'image/jpeg',
      width: 1000,
      height: 1000,
      durationMs: null,
      bytes: 1,
      crop: null,
    };
    expect(codes({ media: [medium] })).toEqual([]);
    expect(codes({ media: [{ ...medium, goodTo: '2027-03-09' }] })).toEqual([]);
    expect(codes({ media: [{ ...medium, goodTo: '2027-03-08' }] })).toEqual(['should picture_old']);
    expect(codes({ media: [{ ...medium, goodTo: '2027-03-08' }], on: null })).toEqual([]);
  });

  it('stops what is under embargo, and what holds no longer; not on the very days', () => {
    const on = fine.on ?? '';
    const [before, after] = [addDays(getDay(on), -1), addDays(getDay(on), 1)];
    for (const window of [
      { notBeforeOn: on, notAfterOn: on },
      { notBeforeOn: before, notAfterOn: after },
    ])
      expect(codes({ window })).toEqual([]);
    expect(preflight({ ...fine, window: { notBeforeOn: after, notAfterOn: null } })).toEqual([
      { code: 'too_early', severity: 'must', place: 'date', what: after },
    ]);
    expect(preflight({ ...fine, window: { notBeforeOn: null, notAfterOn: before } })).toEqual([
      { code: 'too_late', severity: 'must', place: 'date', what: before },
    ]);
    expect(codes({ window: { notBeforeOn: after, notAfterOn: null }, on: null })).toEqual([]);
  });

  it('says which links lead nowhere, and stops nothing for it', () => {
    const links = new Map([['https://example.test/menu', 410]]);
    expect(codes({ links, isSigned: false })).toEqual(['must not_signed', 'should link_gone']);
    expect(isReady(preflight({ ...fine, links }))).toBe(true);
  });

  it('stops what has no way to its channel where it goes out by itself, which stops nobody from posting it', () => {
    const reached = { stopped: null, hasEnded: false, lacksAudience: false };
    expect(codes({ sending: reached })).toEqual([]);
    expect(codes({ sending: { stopped: 'Everything', hasEnded: true, lacksAudience: true } })).toEqual([
      'must sending_stopped',
      'must access_ended',
      'must audience_missing',
    ]);
    const ended = preflight({ ...fine, sending: { ...reached, hasEnded: true } });
    expect([isReady(ended), isReadyByHand(ended)]).toEqual([false, true]);
    expect(isReadyByHand(preflight({ ...fine, isSigned: false }))).toBe(false);
  });

  it('finds a twin by the piece or by the same words, not by having none', () => {
    const other = { pieceId: 'two', title: 'Other', copy: 'Something else' };
    expect(codes({ others: [other] })).toEqual([]);
    expect(codes({ others: [{ ...other, pieceId: 'one' }] })).toEqual(['should twin']);
    const wordless = { ...content, shared: { ...content.shared, copy: '' } };
    const media = [{ name: 'a.mp4', alt: '', mime: 'video/mp4', width: null, height: null, durationMs: null, bytes: null, crop: null }];
    expect(codes({ content: wordless, media, others: [{ ...other, copy: '' }] })).toEqual([]);
  });
});

describe('what is handed out', () => {
  it('is the text with its disclosure, and tags, first comment and link on their own', () => {
    expect(handOut(content, 'feed')).toEqual({
      text: 'Fresh on Saturday\n\nAdvertisement',
      laidOut: null,
      html: null,
      tags: '#rye #bread',
      texts: [],
      firstComment: 'Which one is yours?',
      link: 'https://example.test/menu',
    });
    expect(handOut(content, 'blog')).toEqual({
      text: 'The long one\n\nAdvertisement',
      laidOut: null,
      html: null,
      tags: '',
      firstComment: '',
      link: '',
      texts: [],
    });
    const laidOut: Content = {
      ...content,
      shared: { ...content.shared, copy: '# Fresh\n\n[Come](https://kilnlane.test)', isLaidOut: true },
    };
    expect(handOut(laidOut, 'feed')).toMatchObject({
      text: 'Fresh\n\nCome (https://kilnlane.test)\n\nAdvertisement',
      laidOut: `${laidOut.shared.copy}\n\nAdvertisement`,
    });
    expect(handOut(laidOut, 'blog')).toMatchObject({ text: 'The long one\n\nAdvertisement', laidOut: null });
  });

  it('is one text in files, without empty parts', () => {
    expect(handOutText(content, 'feed')).toBe(
      'Fresh on Saturday\n\nAdvertisement\n\n#rye #bread\n\nhttps://example.test/menu\n\nFirst comment: Which one is yours?\n',
    );
    expect(handOutText(content, 'blog')).toBe('The long one\n\nAdvertisement\n');
  });
});
