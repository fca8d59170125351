import { parse } from 'csv-parse/sync';
import type { SheetLine } from '@zesting/core';
import { sheetAsCsv } from './write-sheet.js';

const line = (more: Partial<SheetLine>): SheetLine => ({
  number: 7,
  clientCode: 'KILN',
  title: 'Rye',
  formatName: 'Still',
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

describe('a sheet as CSV', () => {
  const taken = (lines: SheetLine[]) => sheetAsCsv({ columns: ['title', 'slack', 'left', 'aim', 'channels'], lines });

  it('has an apostrophe before what a spreadsheet would reckon with, and none before a number below zero', () => {
    const titles = ['=1+1', '+44 20', '-5 %', '@home', 'Plain, "said"\nand on'];
    const rows: string[][] = parse(taken(titles.map((title) => line({ title, slackDays: -4 }))), { bom: true, from: 2 });
    expect(rows.map(([title, slack]) => [title, slack])).toEqual(titles.map((title, index) => [index < 4 ? `'${title}` : title, '-4']));
  });

  it('tells hours with two decimals, days as they are, and nothing as nothing', () => {
    const rows: string[][] = parse(taken([line({ leftMinutes: 100, aimOn: '2027-03-16', channelNames: ['Feed', 'Blog'] }), line({})]), {
      bom: true,
    });
    expect(rows).toEqual([
      ['Piece', 'Slack', 'Left (h)', 'Aim', 'Channels'],
      ['Rye', '', '1.67', '2027-03-16', 'Feed, Blog'],
      ['Rye', '', '0', '', ''],
    ]);
    expect(taken([line({})])).toMatch(/^\ufeff.*\r\n.*\r\n$/);
  });
});
