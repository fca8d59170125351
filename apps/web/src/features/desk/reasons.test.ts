import type { DeskRow } from '@zesting/contract';
import { RECKONING_LISTS } from '@zesting/core';
import { actionOf, reasonOf } from './reasons';

const row = (overrides: Partial<DeskRow>): DeskRow => ({
  id: 'p1',
  number: 1,
  clientId: 'c1',
  title: 'Piece',
  formatName: 'Still',
  pillarName: null,
  stage: 'in_production',
  list: 'on_course',
  aimOn: '2027-03-16',
  danger: 'fine',
  slackDays: 2,
  lateFromOn: '2027-03-08',
  round: 1,
  wheel: [],
  currentStep: 'Design',
  currentDoer: 'Piet',
  earliestPublishOn: '2027-03-18',
  packetDueOn: '2027-03-11',
  waitsForWord: false,
  materialDueOn: null,
  placementId: 'l1',
  trouble: null,
  late: null,
  ...overrides,
});

describe('the desk', () => {
  it('says why with its figures: what is short, and what can be met', () => {
    expect(reasonOf(row({ list: 'out_of_reach', slackDays: -2 }))).toMatch(
      /^Design \(Piet\) cannot end in time: 2 working days short; Thu 18 Mar.* can be met$/,
    );
    expect(reasonOf(row({ list: 'overdue', slackDays: -1, earliestPublishOn: null }))).toBe(
      'Design (Piet) should be done: 1 working day short',
    );
    const late = { step: 'Check', doer: 'Ines', latestFinishOn: '2027-03-12', predictedFinishOn: '2027-03-15', behindSteps: 2 };
    expect(reasonOf(row({ list: 'will_be_late', late }))).toMatch(
      /^Check \(Ines\) is needed Fri 12 Mar.*, predicted Mon 15 Mar.*, behind 2 steps$/,
    );
    expect(reasonOf(row({ list: 'will_be_late', late: { ...late, behindSteps: 0, doer: null } }))).toMatch(
      /^Check \(nobody yet\).*predicted Mon 15 Mar\D*( 2027)?$/,
    );
    expect(reasonOf(row({ list: 'no_doer', currentDoer: null }))).toMatch(/^Design could start and must by Mon 8 Mar.*; nobody has it$/);
    expect(reasonOf(row({ list: 'returned', round: 2 }))).toBe('Round 2: Design is with Piet');
    expect(reasonOf(row({ slackDays: 1 }))).toBe('Design is with Piet; 1 day of slack');
  });

  it('does not blame the client for what was never sent', () => {
    for (const list of ['on_course', 'undated', 'to_be_sent'] as const)
      expect(reasonOf(row({ list, currentDoer: 'the client', waitsForWord: true }))).toMatch(
        /^Checked and ready, but not sent to the client yet/,
      );
    expect(actionOf(row({ currentDoer: 'the client', waitsForWord: true }), 'MOSS')).toEqual({
      words: 'Send to client',
      path: '/sign-off?piece=p1&client=MOSS',
    });
  });

  it('tells what the client is to bring from what waits for its word', () => {
    const material = { currentStep: 'Pictures', currentDoer: 'the client', packetDueOn: null };
    expect(reasonOf(row({ ...material, list: 'to_be_asked' }))).toMatch(
      /^Pictures is the client’s to bring, asked by Mon 8 Mar.* at the latest; nobody has asked$/,
    );
    expect(actionOf(row({ ...material, list: 'to_be_asked' }), 'MOSS')).toEqual({ words: 'Ask for it', path: '/pieces/p1#path' });
    const past = { ...material, list: 'with_client_past_due', materialDueOn: '2027-03-05' } as const;
    expect(reasonOf(row(past))).toMatch(/^Pictures was to come from the client by Fri 5 Mar/);
    expect(actionOf(row(past), 'MOSS')).toEqual({ words: 'Ask again', path: '/pieces/p1#path' });
    expect(reasonOf(row(material))).toBe('Pictures is with the client; 2 days of slack');
  });

  it('gives every list a sentence and one click to a place', () => {
    for (const list of RECKONING_LISTS) {
      expect(reasonOf(row({ list })).length).toBeGreaterThan(10);
      expect(actionOf(row({ list }), 'MOSS').path).toMatch(/^\/(pieces\/p1|calendar\?placement=l1|sign-off\?)/);
    }
  });

  it('tells what failed or is unsure from what was missed, and leads to where that is settled', () => {
    const of = (trouble: 'unsure' | 'failed') => row({ list: 'trouble', trouble });
    expect(reasonOf(of('unsure'))).toBe('The channel does not say whether it is out');
    expect(reasonOf(of('failed'))).toBe('It did not go out by itself');
    expect(actionOf(of('unsure'), 'LOOM')).toEqual({ words: 'Say which', path: '/calendar/going-out?client=LOOM' });
    expect(actionOf(of('failed'), '')).toEqual({ words: 'Send again', path: '/calendar/going-out' });
  });

  it('opens the calendar on the month of the missed placement', () => {
    expect(actionOf(row({ list: 'trouble' }), 'KILN')).toEqual({
      words: 'Mark or move',
      path: '/calendar?placement=l1&month=2027-03&client=KILN',
    });
  });
});
