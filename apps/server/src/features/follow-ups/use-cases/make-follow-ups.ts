import { dayIn, placementWorkDays, type InstantText } from '@zesting/core';
import type { Tx } from '../../../platform/database/transaction.js';
import type { WentOutEvent } from '../../calendar/index.js';
import { getDoer, loadCalendars, wantPredictionOf } from '../../planning/index.js';
import { FollowUpList } from '../entities/follow-up-list.entity.js';
import { FollowUp } from '../entities/follow-up.entity.js';
import { whoCould } from '../queries/who-could.js';

/** Something is out: what is done after that becomes due, on the client's days from the one on which it really went. */
export async function makeFollowUps(
  tx: Tx,
  { placementId, clientId, channelId, zone, outAt }: WentOutEvent,
  now: InstantText,
): Promise<void> {
  const list = await tx.findOneBy(FollowUpList, { channelId });
  const items = (list?.items ?? []).flatMap((item, position) => (item.kind === 'follow_up' ? [{ ...item, position }] : []));
  if (items.length === 0) return;
  const outOn = dayIn(outAt, zone);
  const could = new Set((await whoCould(tx, clientId)).map(({ personId }) => personId));
  const book = items.some(({ personId }) => personId !== null) ? await loadCalendars(tx, now) : undefined;
  const rows = items.flatMap(({ key, position, words, personId: named, minutes, ...rule }) => {
    const personId = named !== null && could.has(named) ? named : null;
    const calendar = personId === null || !book ? null : getDoer(book, personId).calendar;
    return placementWorkDays(rule, outOn, calendar).map((dueOn) =>
      tx.create(FollowUp, {
        placementId,
        clientId,
        kind: 'follow_up',
        itemKey: key,
        position,
        words,
        personId,
        minutes,
        dueOn,
        meantAt: null,
        digests: null,
        settledBy: null,
        settledAt: null,
      }),
    );
  });
  await tx.save(rows);
  await wantPredictionOf(tx, [...new Set(rows.flatMap(({ personId }) => personId ?? []))]);
}
