import { addDays, dayInWords, ok, type Day } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { putPiece } from '../../calendar/index.js';
import { firstToday, getPlanClient, knownDays, loadCalendars, loadDuties } from '../../planning/index.js';
import { DutyMark } from '../entities/duty-mark.entity.js';
import { Duty } from '../entities/duty.entity.js';
import { lockDuty, noteDuty, peopleOf } from './duties.js';

/** The longest that a piece may be made before its day; longer ahead nothing is looked for. */
const FURTHEST_DAYS = 180;

/** Who the record names where nobody did it by hand. */
const BY_RULE = { name: 'Zesting, by rule' } as const;

/**
 * Makes the pieces of all duties that are due to start, each in a transaction of its own: pencilled on the day of the rule, with the standing remark and
 * the checklist in its brief. What cannot be made (its route is archived, the clock jumps over its time) stays due, and is missed once its day is over.
 * @returns how many were made
 */
export async function makeDuePieces(app: App): Promise<number> {
  const now = app.clock.now();
  const asked = await app.read<{ id: string }>('select id from duties where route_id is not null order by id');
  if (asked.length === 0) return 0;
  const book = await loadCalendars(app.manager, now);
  const first = firstToday(book);
  const duties = await loadDuties(
    app.manager,
    book,
    addDays(first, -1),
    asked.map(({ id }) => id),
  );
  let made = 0;
  for (const duty of duties) {
    if (duty.clientId === null) continue;
    const { todayOn } = getPlanClient(book, duty.clientId);
    for (const day of knownDays(duty, book, todayOn, addDays(todayOn, FURTHEST_DAYS)))
      if (day.startOn <= todayOn && day.on >= todayOn && (day.mark === null || day.mark.mark === 'open'))
        made += (await makePiece(app, duty.id, day.on)) ? 1 : 0;
  }
  return made;
}

async function makePiece(app: App, dutyId: string, on: Day): Promise<boolean> {
  const result = await app.write<boolean, { code: string }>(async (tx, now) => {
    const { duty } = await lockDuty(tx, dutyId, now);
    const there = await tx.findOneBy(DutyMark, { dutyId, onDay: on });
    if (duty.routeId === null || duty.clientId === null || (there && there.mark !== 'open')) return ok(false);
    const piece = await putPiece(
      tx,
      BY_RULE,
      duty.clientId,
      {
        routeId: duty.routeId,
        title: `${duty.title}, ${dayInWords(on)}`,
        notes: await notesOf(tx, duty),
        wishOn: on,
        channelIds: duty.channelIds,
        isPencilled: duty.channelIds.length > 0,
        ...(duty.pillarId === null ? {} : { pillarId: duty.pillarId }),
      },
      now,
    );
    if (!piece.ok) return piece;
    await tx.upsert(DutyMark, { dutyId, onDay: on, mark: 'made', ticks: [], personId: null, pieceId: piece.value, at: now }, [
      'dutyId',
      'onDay',
    ]);
    await noteDuty(tx, BY_RULE, duty, 'duty.piece_made', { title: duty.title, on }, now);
    return ok(true);
  });
  return result.ok && result.value;
}

/** What the makers are told each time: the standing remark, what has to be ticked, and who answers for it. */
async function notesOf(tx: Tx, duty: Duty): Promise<string> {
  const people = await rowsOf<{ id: string; name: string }>(tx, 'select id, name from people where id = any($1)', [peopleOf(duty)]);
  const nameOf = (id: string | null) => people.find((person) => person.id === id)?.name;
  const second = nameOf(duty.secondId);
  return [
    duty.remark,
    duty.checklist.map((line) => `– ${line}`).join('\n'),
    `Answers for it: ${nameOf(duty.leadId) ?? ''}${second ? `; ${second} while they are away` : ''}.`,
  ]
    .filter(Boolean)
    .join('\n\n');
}
