import { addDays, dayIn, getDay, getTimeOfDay, toInstantAfterGap, weekdayOf, type InstantText } from '@zesting/core';
import { CLIENTS } from './clients';
import { ASKED, STORY, type StoryPiece } from './pieces';
import { inTurn, planStory, textOf, WallClocks, type Act, type StoryPlan } from './plan-story';

const ALL = [...STORY, ...ASKED];
const clocks = new WallClocks();
const HOUR = 3_600_000;
const ORDER: readonly Act[] = [
  'ask',
  'accept',
  'assign',
  'begin',
  'make',
  'check',
  'send',
  'ask_for_changes',
  'approve',
  'second_round',
  'place',
  'edit_after',
  'mark_out',
];

/** What is wrong with a plan, in words; empty when all holds. Written apart from the planning: it only reads moments. */
function faults(plan: StoryPlan): string[] {
  const found: string[] = [];
  const now = Date.parse(plan.now);
  const byPiece = new Map<StoryPiece, { act: Act; at: number }[]>();
  let last = -Infinity;
  for (const { piece, act, atMs: ms } of plan.moments) {
    if (ms < last) found.push(`${piece.title}: ${act} is out of order`);
    last = ms;
    byPiece.set(piece, [...(byPiece.get(piece) ?? []), { act, at: ms }]);
  }
  for (const [piece, moments] of byPiece) {
    const at = (act: Act) => moments.find((moment) => moment.act === act)?.at;
    const say = (what: string) => found.push(`${piece.title}: ${what}`);
    const told = ORDER.flatMap((act) => at(act) ?? []);
    told.forEach((ms, index) => {
      if (index > 0 && ms <= (told[index - 1] ?? Infinity)) say(`${index} does not follow`);
    });
    if (moments.some((moment) => moment.at > now)) say('in the future');
    const publish = plan.publishMs(piece);
    const [first, lastOut] = [Math.min(...publish), Math.max(...publish)];
    if ((at('place') ?? at('pencil') ?? -Infinity) >= first) say('placed after it went out');
    if ((at('mark_out') ?? Infinity) <= lastOut) say('marked out before it went out');
    if (piece.ending === 'missed' && first >= now) say('not missed yet');
    if (['scheduled', 'changed_after', 'pencilled'].includes(piece.ending) && first <= now) say('its time has passed');
    const wishOn = plan.wishOn(piece);
    const asked = moments[0]?.at ?? 0;
    if (wishOn !== null && wishOn < clocks.dayAt(asked, CLIENTS[piece.client].zone)) say('wished for the past');
  }
  return found;
}

const hours = (from: InstantText, count: number, step = 1): string[] =>
  Array.from({ length: Math.ceil(count / step) }, (_, index) => textOf(Date.parse(from) + index * step * HOUR));

/** Five hours are prime to the hours of a week: a year in such steps sees each of them. ZESTING_LONG sees every hour of the year. */
const STEP = process.env['ZESTING_LONG'] ? 1 : 5;

describe('the story, planned', () => {
  it('holds as seen from every hour of the week through a year, over both clock changes, the year’s end and the leap day', () => {
    const seen = [...hours('2027-03-01T00:30:00Z', 366 * 24, STEP), ...hours('2028-02-27T00:00:00Z', 96)];
    expect(seen.flatMap((now) => faults(planStory(now, ALL, clocks)).map((fault) => `${now} ${fault}`))).toEqual([]);
  });

  it('holds at the odd minute around every zone’s midnight and the changes of its clocks', () => {
    const days = ['2027-03-14', '2027-03-28', '2027-04-04', '2027-09-26', '2027-10-31', '2027-11-07', '2027-12-31', '2027-06-15'].map(
      getDay,
    );
    const zones = [...new Set(Object.values(CLIENTS).map((client) => client.zone)), 'Pacific/Kiritimati', 'Pacific/Pago_Pago'];
    const moments = days.flatMap((day) =>
      zones.flatMap((zone) =>
        ['23:59', '00:00', '00:01', '02:59', '03:01', '12:00'].map((time) => toInstantAfterGap(day, getTimeOfDay(time), zone)),
      ),
    );
    expect(moments.flatMap((now) => faults(planStory(now, ALL, clocks)).map((fault) => `${now} ${fault}`))).toEqual([]);
  });

  it('asks on weekdays, in the morning of the client’s zone, where there is time for it', () => {
    const plan = planStory('2027-03-19T15:00:00Z', ALL);
    for (const { piece, act, atMs } of plan.moments)
      if (act === 'ask' && piece.askedDaysAgo > 4) {
        const { zone } = CLIENTS[piece.client];
        expect(weekdayOf(dayIn(textOf(atMs), zone))).toBeLessThanOrEqual(5);
        expect(textOf(atMs)).toBe(toInstantAfterGap(dayIn(textOf(atMs), zone), getTimeOfDay('09:00'), zone));
      }
  });

  it('is the same story for the same present, and ends with what today asks for', () => {
    const [one, two] = [planStory('2027-12-31T23:30:00Z', ALL), planStory('2027-12-31T23:30:00Z', ALL)];
    expect(one.moments).toEqual(two.moments);
    expect(
      one.moments
        .slice(-3)
        .map(({ act }) => act)
        .sort(),
    ).toEqual(['overrun', 'wish_beyond', 'wish_tight']);
    expect(one.wishOn(STORY[0] as StoryPiece)).toBe(addDays(getDay('2028-01-01'), -6)); // Auckland is a day ahead by then
  });

  it('moves what is wanted too early on, and all back where the end leaves no room', () => {
    const minute = 60_000;
    expect(inTurn([0, 0, 5 * minute], 1000 * minute)).toEqual([0, 10 * minute, 20 * minute]);
    expect(inTurn([0, 0, 500 * minute], 15 * minute)).toEqual([-5 * minute, 5 * minute, 15 * minute]);
  });
});
