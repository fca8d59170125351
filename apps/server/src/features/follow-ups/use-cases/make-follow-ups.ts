import { addDays, dayIn, type InstantText } from '@zesting/core';
import type { Tx } from '../../../platform/database/transaction.js';
import type { WentOutEvent } from '../../calendar/index.js';
import { FollowUpList } from '../entities/follow-up-list.entity.js';
import { FollowUp } from '../entities/follow-up.entity.js';

/** Something is out: what is done after that becomes due, on the client's days from the one on which it really went. */
export async function makeFollowUps(
  tx: Tx,
  { placementId, clientId, channelId, zone, outAt }: WentOutEvent,
  _now: InstantText,
): Promise<void> {
  const list = await tx.findOneBy(FollowUpList, { channelId });
  const outOn = dayIn(outAt, zone);
  const rows = (list?.items ?? []).map(({ words, daysAfter }, position) =>
    tx.create(FollowUp, { placementId, clientId, position, words, dueOn: addDays(outOn, daysAfter), settledBy: null, settledAt: null }),
  );
  if (rows.length > 0) await tx.save(rows);
}
