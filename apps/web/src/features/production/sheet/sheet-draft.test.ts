import fc from 'fast-check';
import { getDay } from '@zesting/core';
import { sheetRow } from '../../../../test-support/sheet-row';
import {
  changesOf,
  filledDown,
  hasNoTitle,
  isBehind,
  keptOver,
  pasted,
  put,
  putMany,
  shownIn,
  without,
  WRITTEN,
  type Known,
  type Put,
  type SheetDraft,
} from './sheet-draft';

const known: Known = {
  pillarsOf: (clientId) =>
    clientId === 'c1'
      ? [
          { id: 'craft', name: 'Craft' },
          { id: 'care', name: 'Care' },
        ]
      : [{ id: 'theirs', name: 'Craft' }],
  people: [
    { id: 'piet', name: 'Piet Lindqvist', role: 'staff' },
    { id: 'noor', name: 'Noor Castellane', role: 'freelance' },
  ],
  todayOn: getDay('2027-03-01'),
};
const [one, two, three] = [sheetRow('1'), sheetRow('2', { pillarId: 'craft', pillarName: 'Craft' }), sheetRow('3', { clientId: 'c2' })];
const step = (id: string) => ({ stepId: `write-${id}`, version: 2 });

describe('what is put into the sheet', () => {
  it('is what is sent, with the state on which it was put', () => {
    let draft = put({}, one, { column: 'title', value: ' New ' });
    draft = put(draft, one, { column: 'doer', value: 'piet' });
    draft = put(draft, two, { column: 'pillar', value: null });
    expect(changesOf(draft, [one, two, three])).toEqual([
      { pieceId: '1', version: 3, title: 'New', doer: { ...step('1'), personId: 'piet' } },
      { pieceId: '2', version: 3, pillarId: null },
    ]);
    expect([shownIn(one, 'doer', draft), shownIn(two, 'pillar', draft), shownIn(two, 'title', draft)]).toEqual(['piet', null, 'Piece 2']);
  });

  it('is nothing where it is put back to what is saved, in whatever order', () => {
    const anyPut = fc.constantFrom<Put>(
      { column: 'title', value: 'T' },
      { column: 'title', value: '' },
      { column: 'pillar', value: 'care' },
      { column: 'purpose', value: 'buy' },
      { column: 'lead', value: 'piet' },
      { column: 'wish', value: '2027-04-01' },
      { column: 'wish', value: null },
      { column: 'doer', value: 'noor' },
    );
    const isOf = (value: string | null, column: string) => ({ column, value }) as Put;
    fc.assert(
      fc.property(fc.array(anyPut), fc.shuffledSubarray([...WRITTEN], { minLength: WRITTEN.length }), (puts, back) => {
        const draft = puts.reduce<SheetDraft>((before, next) => put(before, two, next), {});
        for (const column of WRITTEN) {
          const last = puts.filter((one) => one.column === column).at(-1);
          if (last) expect(shownIn(two, column, draft)).toBe(last.value);
        }
        expect(back.reduce((before, column) => put(before, two, isOf(shownIn(two, column, {}), column)), draft)).toEqual({});
      }),
    );
  });

  it('waits for a title where there is none', () => {
    const draft = put(put({}, one, { column: 'title', value: '  ' }), two, { column: 'title', value: 'B' });
    expect([hasNoTitle(one, draft), hasNoTitle(two, draft)]).toEqual([true, false]);
    expect(changesOf(draft, [one, two]).map(({ pieceId }) => pieceId)).toEqual(['2']);
  });

  it('gives away only what is one step of the agency’s, and changes nothing that is done', () => {
    const [at] = one.atHand;
    if (!at) throw new Error('it has a step');
    const clients = sheetRow('4', { atHand: [{ ...at, isClients: true }] });
    const twoAtHand = sheetRow('5', { atHand: [at, { ...at, stepId: 'other' }] });
    const done = sheetRow('6', { stage: 'published', atHand: [] });
    for (const row of [clients, twoAtHand, done]) expect(put({}, row, { column: 'doer', value: 'piet' })).toEqual({});
    expect(put({}, done, { column: 'title', value: 'X' })).toEqual({});
    expect(put({}, clients, { column: 'title', value: 'X' })).not.toEqual({});
  });
});

describe('a line that somebody else changed meanwhile', () => {
  const draft = put(put({}, one, { column: 'title', value: 'Mine' }), one, { column: 'doer', value: 'piet' });
  const [at] = one.atHand;
  if (!at) throw new Error('it has a step');

  it('is not sent until it is answered', () => {
    const changed = { ...one, version: 4, title: 'Theirs' };
    expect([isBehind(one, draft), isBehind(changed, draft)]).toEqual([false, true]);
    expect(changesOf(draft, [changed])).toEqual([]);
    expect(changesOf(keptOver(draft, changed), [changed])).toMatchObject([
      { version: 4, title: 'Mine', doer: { ...step('1'), personId: 'piet' } },
    ]);
    expect(without(draft, ['1'])).toEqual({});
  });

  it('is one where the step was given to somebody, or is no longer at hand: that part goes, the rest stays', () => {
    const given = { ...one, atHand: [{ ...at, doerId: 'noor', doerName: 'Noor', version: 3 }] };
    expect(isBehind(given, draft)).toBe(true);
    expect(changesOf(keptOver(draft, given), [given])).toMatchObject([{ doer: { version: 3, personId: 'piet' } }]);
    const further = { ...one, atHand: [{ ...at, stepId: 'design-1', version: 1 }] };
    expect(isBehind(further, draft)).toBe(true);
    expect(changesOf(keptOver(draft, further), [further])).toEqual([{ pieceId: '1', version: 3, title: 'Mine' }]);
    const doerAlone = put({}, one, { column: 'doer', value: 'piet' });
    expect(keptOver(doerAlone, further)).toEqual({});
  });
});

describe('many cells at once', () => {
  it('are put into every line that takes them: a pillar only where the client has it', () => {
    const { draft, cells, left } = putMany({}, [one, two, three], { column: 'pillar', value: 'care' }, known);
    expect([cells, left, Object.keys(draft)]).toEqual([2, 1, ['1', '2']]);
    expect(putMany({}, [one, three], { column: 'purpose', value: 'come' }, known)).toMatchObject({ cells: 2, left: 0 });
  });

  it('are filled as the first shows them, saved or not', () => {
    const draft = put({}, one, { column: 'wish', value: '2027-05-01' });
    expect(shownIn(three, 'wish', filledDown(draft, [one, two, three], 'wish', known).draft)).toBe('2027-05-01');
    expect(filledDown({}, [two, one], 'pillar', known).draft).toMatchObject({ '1': { pillarId: 'craft' } });
    expect(filledDown({}, [], 'pillar', known).cells).toBe(0);
  });

  it('are pasted to the right and down over the columns that are shown, read as people write them', () => {
    const columns = ['title', 'pillar', 'purpose', 'doer', 'wish'] as const;
    const table = [
      ['A', 'craft', 'Know something', 'piet lindqvist', '16/3'],
      ['', 'Nonsense', 'buy', 'nobody', 'not a day'],
      ['C', 'CRAFT', '', 'Noor Castellane', '2027-04-02', 'one too many'],
      ['D'],
    ];
    const { draft, cells, left } = pasted({}, [one, two, three], { row: 0, column: 'title' }, table, columns, known);
    // no title, no such pillar, no day, a cell beside the sheet, a line below it
    expect([cells, left]).toEqual([12, 5]);
    expect(changesOf(draft, [one, two, three])).toEqual([
      {
        pieceId: '1',
        version: 3,
        title: 'A',
        pillarId: 'craft',
        purpose: 'know',
        wishOn: '2027-03-16',
        doer: { ...step('1'), personId: 'piet' },
      },
      { pieceId: '2', version: 3, purpose: 'buy' },
      { pieceId: '3', version: 3, title: 'C', pillarId: 'theirs', wishOn: '2027-04-02', doer: { ...step('3'), personId: 'noor' } },
    ]);
    // a freelance creator answers for no piece
    expect(pasted({}, [one], { row: 0, column: 'lead' }, [['Piet Lindqvist'], ['x']], ['lead'], known).draft).toEqual({
      '1': { version: 3, leadId: 'piet' },
    });
    expect(pasted({}, [one], { row: 0, column: 'lead' }, [['Noor Castellane']], ['lead'], known)).toMatchObject({ cells: 0, left: 1 });
    expect(pasted({}, [one], { row: 0, column: 'wish' }, [['', 'x']], ['title', 'wish'], known)).toMatchObject({ cells: 1, left: 1 });
  });
});
