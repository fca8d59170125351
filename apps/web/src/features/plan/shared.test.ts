import { caughtOf, sharedLine } from './shared';

describe('what is caught of a line', () => {
  it.each([
    ['A loaf at night', { title: 'A loaf at night', link: null }],
    ['A loaf https://bread.test/night at night', { title: 'A loaf at night', link: 'https://bread.test/night' }],
    ['See https://bread.test/night.', { title: 'See.', link: 'https://bread.test/night' }],
    ['https://bread.test/night', { title: 'https://bread.test/night', link: 'https://bread.test/night' }],
    ['  ', { title: '', link: null }],
  ])('%j', (line, caught) => expect(caughtOf(line)).toEqual(caught));

  it('is no longer than a title may be', () => expect([...caughtOf('🍞'.repeat(300)).title]).toHaveLength(200));
});

describe('what a phone shares', () => {
  const line = (query: string) => sharedLine(new URLSearchParams(query));
  it('is one line of title, text and address, each said once', () => {
    expect(line('title=Night&text=Look&url=https://b.test/')).toBe('Night Look https://b.test/');
    // many put the address into the text, or the title into both
    expect(line('title=Night&text=Night https://b.test/&url=https://b.test/')).toBe('Night https://b.test/');
    expect(line('title=Night&text=Night')).toBe('Night');
    expect(line('client=MOSS')).toBe('');
  });
});
