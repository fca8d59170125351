import { fail, ok, type Result } from '@zesting/core';
import type { Audience } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { type Tx } from '../../../platform/database/transaction.js';
import { tell } from '../../notices/index.js';
import { teamOf } from '../../team-notes/index.js';

export type WriteFailure = { code: 'person.unknown' | 'remark.for_client_by_managers' };

/** So much of what was written is told in a round-up. */
const TOLD_CHARACTERS = 200;

/** Whether somebody may write what this audience reads: to the client, only those who manage. */
export const mayWriteTo = (viewer: Pick<Viewer, 'role'>, audience: Audience): boolean =>
  audience === 'team' || viewer.role === 'lead' || viewer.role === 'manager';

/** The key of a notice about a remark or a reply: what is taken back is told to nobody. */
export const noticeKey = (id: string): string => `remark:${id}`;

/** Only who can see the piece can be mentioned on it. */
export async function checkMentions(tx: Tx, pieceId: string, mentionIds: readonly string[]): Promise<Result<null, WriteFailure>> {
  if (mentionIds.length === 0) return ok(null);
  const team = new Set((await teamOf(tx, { pieceId })).map(({ personId }) => personId));
  return mentionIds.every((id) => team.has(id)) ? ok(null) : fail({ code: 'person.unknown' });
}

interface Written {
  readonly piece: { readonly id: string; readonly clientId: string; readonly title: string };
  readonly text: string;
  readonly mentionIds: readonly string[];
  /** the id of what was written */
  readonly key: string;
}

/** Tells those who are mentioned what was written, but for the writer. */
export async function tellMentioned(app: App, tx: Tx, viewer: Viewer, { piece, text, mentionIds, key }: Written): Promise<void> {
  const told = text.length > TOLD_CHARACTERS ? `${text.slice(0, TOLD_CHARACTERS).trimEnd()}…` : text;
  for (const personId of mentionIds.filter((id) => id !== viewer.personId))
    await tell(app, tx, personId, {
      clientId: piece.clientId,
      heading: `${viewer.name} on “${piece.title}”`,
      text: `${viewer.name} remarked: “${told}”`,
      path: `/pieces/${piece.id}/remarks`,
      key: noticeKey(key),
    });
}
