import type { InstantText } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { Tx } from '../../../platform/database/transaction.js';

/** Writes in the record what was changed of a client's plan. */
export const note = (
  tx: Tx,
  viewer: Viewer,
  clientId: string,
  verb: string,
  detail: Readonly<Record<string, unknown>>,
  at: InstantText,
): Promise<void> => recordActivity(tx, { clientId, thing: 'client', thingId: clientId, verb, actor: viewer.name, detail, at });
