import type { CopyRowShape } from '@zesting/contract';
import Papa from 'papaparse';
import fc from 'fast-check';
import { changesOf, filledDown, isBehind, pasted, rowKey, shownText, typed, without, type CopyDraft } from './copy-draft';
import { tableIn } from '../table-in';

const row = (pieceId: string, more: Partial<CopyRowShape> = {}): CopyRowShape => ({
  placementId: `l-${pieceId}`,
  pieceId,
  pieceNumber: 1,
  title: 'T',
  formatName: 'Still',
  channelId: 'feed',
  channelName: 'Feed',
  on: '2027-03-09',
  at: '09:00',
  state: 'pencilled',
  pictureId: null,
  copy: `Copy ${pieceId}`,
  sharedWith: [],
  isLaidOut: false,
  tags: ['old'],
  firstComment: '',
  link: '',
  disclosure: '',
  purpose: null,
  copyLimit: null,
  tagLimit: null,
  countsTags: false,
  linksWork: true,
  contentVersion: 3,
  version: 1,
  ...more,
});
const rows = [row('a'), row('b', { state: 'out' }), row('c')];

describe('a table of copy', () => {
  it('keeps what is typed until it is saved, and nothing that is typed back', () => {
    const [a] = rows as [CopyRowShape];
    const draft = typed(typed({}, a, 'copy', 'New'), a, 'tags', 'one, #two');
    expect(shownText(a, 'copy', draft)).toBe('New');
    expect(changesOf(draft, rows)).toEqual([{ pieceId: 'a', channelId: 'feed', contentVersion: 3, copy: 'New', tags: ['one', 'two'] }]);
    const back = typed(typed(draft, a, 'copy', 'Copy a'), a, 'tags', 'old');
    expect(back).toEqual({});
    expect(changesOf(typed({}, a, 'copy', ''), rows)).toEqual([{ pieceId: 'a', channelId: 'feed', contentVersion: 3, copy: '' }]);
  });

  it('takes a table that is pasted, from a cell to the right and down, past what is out', () => {
    const { draft, cells, left } = pasted({}, rows, { row: 0, field: 'firstComment' }, [
      ['One', 'https://x.test/1', 'beyond'],
      ['Two', 'https://x.test/2'],
      ['Three', ''],
      ['no row'],
    ]);
    expect(draft).toEqual({
      'a:feed': { firstComment: 'One', link: 'https://x.test/1', contentVersion: 3 },
      'c:feed': { firstComment: 'Three', contentVersion: 3 },
    });
    expect([cells, left]).toEqual([4, 4]);
  });

  it('fills down what the first shows, typed or saved', () => {
    const [a] = rows as [CopyRowShape];
    expect(filledDown({}, rows, 'tags')).toEqual({ draft: {}, cells: 1, left: 1 }); // the same tags already
    const { draft } = filledDown(typed({}, a, 'tags', '#new'), rows, 'tags');
    expect(draft['c:feed']).toEqual({ tags: '#new', contentVersion: 3 });
    expect(draft['b:feed']).toBeUndefined();
  });

  it('sends nothing of a row that somebody else changed meanwhile, and forgets what was saved', () => {
    const [a] = rows as [CopyRowShape];
    const draft: CopyDraft = typed(typed({}, a, 'copy', 'New'), row('c'), 'copy', 'Other');
    const later = [row('a', { contentVersion: 4 }), row('c')];
    expect(later.map((each) => isBehind(each, draft))).toEqual([true, false]);
    expect(changesOf(draft, later).map(({ pieceId }) => pieceId)).toEqual(['c']);
    expect(Object.keys(without(draft, ['c']))).toEqual([rowKey(a)]);
  });

  it('knows a table on the clipboard from a text of several lines', () => {
    expect(tableIn('One line\nand another', '')).toBeNull();
    expect(tableIn('One\nTwo\n', '<html><table><tr>')).toEqual([['One'], ['Two']]);
    expect(tableIn('a\tb\r\n"two\nlines"\t"say ""so"""\r\n', '')).toEqual([
      ['a', 'b'],
      ['two\nlines', 'say "so"'],
    ]);
  });

  it('reads back what a spreadsheet writes', () => {
    const cell = fc.string({ maxLength: 8, unit: fc.constantFrom('a', '"', '\n', '\t', ',', 'é', ' ', '#') });
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 5 }), (table) => {
        expect(tableIn(`${Papa.unparse(table, { delimiter: '\t' })}\r\n`, '<table>')).toEqual(table.map((line) => [...line]));
      }),
    );
  });
});
