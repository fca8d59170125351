import fc from 'fast-check';
import { DANGERS } from '../backplan/index.js';
import { PIECE_STAGES } from '../reckoning/index.js';
import { SHEET_COLUMNS, SHEET_GROUPS, sheetColumn, sheetOrdered, sheetParts, totalsOf, type SheetLine } from './index.js';

const line = (more: Partial<SheetLine> = {}): SheetLine => ({
  number: 1,
  clientCode: 'KILN',
  title: 'A piece',
  formatName: 'Article',
  pillarName: null,
  leadName: null,
  campaignNames: [],
  channelNames: [],
  purpose: null,
  stage: 'planned',
  stepTitles: [],
  doerNames: [],
  round: 1,
  wishOn: null,
  aimOn: null,
  expectedOn: null,
  slackDays: null,
  leftMinutes: 0,
  workedMinutes: 0,
  danger: null,
  ...more,
});
const numbers = (lines: readonly SheetLine[]) => lines.map(({ number }) => number);

const anyLine = fc.record<SheetLine>({
  number: fc.nat(1000),
  clientCode: fc.constantFrom('KILN', 'MOSS', 'tide'),
  title: fc.string({ maxLength: 6 }),
  formatName: fc.constantFrom('Article', 'Short clip'),
  pillarName: fc.option(fc.constantFrom('Craft', 'Care')),
  leadName: fc.option(fc.constantFrom('Dana', 'Ivo')),
  campaignNames: fc.uniqueArray(fc.constantFrom('Spring', 'Autumn')),
  channelNames: fc.uniqueArray(fc.constantFrom('Feed', 'Blog')),
  purpose: fc.constantFrom(null, 'know', 'buy'),
  stage: fc.constantFrom(...PIECE_STAGES),
  stepTitles: fc.uniqueArray(fc.constantFrom('Write', 'Design')),
  doerNames: fc.uniqueArray(fc.constantFrom('Piet', 'Noor')),
  round: fc.integer({ min: 1, max: 3 }),
  wishOn: fc.constantFrom(null, '2027-03-01', '2027-04-20'),
  aimOn: fc.constantFrom(null, '2027-03-01', '2027-03-07', '2027-03-08', '2027-04-01'),
  expectedOn: fc.constantFrom(null, '2027-03-01'),
  slackDays: fc.option(fc.integer({ min: -20, max: 20 })),
  leftMinutes: fc.nat(600),
  workedMinutes: fc.nat(600),
  danger: fc.constantFrom(null, ...DANGERS),
});

describe('the order of a sheet', () => {
  it('is by what a column says, either way, with what says nothing last', () => {
    const lines = [
      line({ number: 1, slackDays: 3 }),
      line({ number: 2 }),
      line({ number: 3, slackDays: -2 }),
      line({ number: 4, slackDays: 0 }),
      line({ number: 5 }),
    ];
    expect(numbers(sheetOrdered(lines, { by: 'slack', isDown: false }))).toEqual([3, 4, 1, 2, 5]);
    expect(numbers(sheetOrdered(lines, { by: 'slack', isDown: true }))).toEqual([1, 4, 3, 2, 5]);
    expect(numbers(lines)).toEqual([1, 2, 3, 4, 5]);
  });

  it('reads texts as people do: large and small alike, figures by their worth', () => {
    const titles = ['week 10', 'Week 9', 'älter', 'Zebra', ''];
    const lines = titles.map((title, index) => line({ number: index, title }));
    expect(sheetOrdered(lines, { by: 'title', isDown: false }).map(({ title }) => title)).toEqual([
      'älter',
      'Week 9',
      'week 10',
      'Zebra',
      '',
    ]);
  });

  it('puts stages by how far they are and dangers by how great they are, not by their letters', () => {
    const stages = ['published', 'planned', 'with_client', 'in_review'] as const;
    const byStage = sheetOrdered(
      stages.map((stage, number) => line({ number, stage })),
      { by: 'stage', isDown: false },
    );
    expect(byStage.map(({ stage }) => stage)).toEqual(['planned', 'in_review', 'with_client', 'published']);
    const dangers = ['fine', null, 'overdue', 'tight'] as const;
    const byDanger = sheetOrdered(
      dangers.map((danger, number) => line({ number, danger })),
      { by: 'danger', isDown: false },
    );
    expect(byDanger.map(({ danger }) => danger)).toEqual(['overdue', 'tight', 'fine', null]);
  });

  it('loses no line and doubles none, and is the same from whatever order it starts', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(anyLine, { selector: ({ number }) => number, maxLength: 20 }),
        fc.constantFrom(...SHEET_COLUMNS),
        fc.boolean(),
        (lines, by, isDown) => {
          const ordered = sheetOrdered(lines, { by, isDown });
          expect(numbers(ordered).sort((a, b) => a - b)).toEqual(numbers(lines).sort((a, b) => a - b));
          expect(sheetOrdered([...lines].reverse(), { by, isDown })).toEqual(ordered);
          const { of } = sheetColumn(by);
          const said = ordered.map((one) => of(one) !== null && of(one) !== '');
          expect(said).toEqual([...said].sort((a, b) => Number(b) - Number(a)));
        },
      ),
    );
  });
});

describe('the parts of a sheet', () => {
  const lines = [
    line({ number: 1, aimOn: '2027-03-14', stage: 'with_client', leftMinutes: 60, danger: 'tight' }),
    line({ number: 2, aimOn: '2027-03-08', stage: 'planned', leftMinutes: 90, workedMinutes: 30, danger: 'overdue' }),
    line({ number: 3, leftMinutes: 15, stage: 'planned', danger: 'will_be_late' }),
    line({ number: 4, aimOn: '2027-03-15', stage: 'planned', danger: 'out_of_reach' }),
  ];

  it('are weeks from Monday to Sunday, in their order, with what has no day last', () => {
    expect(sheetParts(lines, 'week').map(({ name, lines: own }) => [name, numbers(own)])).toEqual([
      ['2027-03-08', [1, 2]],
      ['2027-03-15', [4]],
      [null, [3]],
    ]);
    expect(sheetParts(lines, 'month').map(({ name }) => name)).toEqual(['2027-03', null]);
  });

  it('are stages in the order of the work', () => {
    expect(sheetParts(lines, 'stage').map(({ name, lines: own }) => [name, numbers(own)])).toEqual([
      ['Planned', [2, 3, 4]],
      ['With client', [1]],
    ]);
  });

  it('tell what they come to', () => {
    const [week] = sheetParts(lines, 'week');
    expect(week?.totals).toEqual({ pieces: 2, leftMinutes: 150, workedMinutes: 30, late: 1 });
    expect(totalsOf(lines)).toEqual({ pieces: 4, leftMinutes: 165, workedMinutes: 30, late: 3 });
    expect(totalsOf([])).toEqual({ pieces: 0, leftMinutes: 0, workedMinutes: 0, late: 0 });
  });

  it('have every line once, in its order, and come to what the whole comes to', () => {
    fc.assert(
      fc.property(fc.array(anyLine, { maxLength: 30 }), fc.constantFrom(...SHEET_GROUPS), (all, group) => {
        const parts = sheetParts(all, group);
        expect(parts.flatMap((part) => part.lines).length).toBe(all.length);
        for (const { lines: own } of parts) expect(own).toEqual(all.filter((one) => own.includes(one)));
        expect(new Set(parts.map(({ name }) => name)).size).toBe(parts.length);
        const whole = totalsOf(all);
        for (const sum of ['pieces', 'leftMinutes', 'workedMinutes', 'late'] as const)
          expect(parts.reduce((before, { totals }) => before + totals[sum], 0)).toBe(whole[sum]);
      }),
    );
  });
});
