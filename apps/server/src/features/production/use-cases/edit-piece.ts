import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { EditPieceBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { canLead } from '../../notices/index.js';
import { replan } from '../../planning/index.js';
import type { Piece } from '../entities/piece.entity.js';
import { lockPiece, pieceChanged } from '../piece-store.js';
import { storedAim, tellAimMoved } from './tell-aim-moved.js';

type Failure = { code: 'http.changed_meanwhile' | 'pillar.unknown' | 'person.unknown' | 'piece.has_spin_offs' };

/** SQL: whether something that was made from the piece `$1` is still under way. */
export const HAS_LIVE_OUTPUTS = `exists (select 1 from spin_offs s join pieces o on o.id = s.piece_id where s.source_id = $1 and o.list is not null)`;
const EDITABLE = ['title', 'pillarId', 'purpose', 'leadId', 'notes', 'wishOn', 'shelved'] as const satisfies readonly (keyof Piece &
  keyof EditPieceBody)[];

/** Changes what stands around the content: title, pillar, notes, wish date, shelf. All dates follow. */
export function editPiece(
  app: App,
  viewer: Viewer,
  pieceId: string,
  body: EditPieceBody,
  version: number,
): Promise<Result<number, Failure>> {
  return app.write<number, Failure>((tx, now) => changePiece(app, tx, viewer, { pieceId, body, version }, now));
}

/** The same in the caller's transaction. */
export async function changePiece(
  app: App,
  tx: Tx,
  viewer: Viewer,
  { pieceId, body, version }: { readonly pieceId: string; readonly body: EditPieceBody; readonly version: number },
  now: InstantText,
): Promise<Result<number, Failure>> {
  const piece = await lockPiece(tx, pieceId);
  if (piece.version !== version) return fail({ code: 'http.changed_meanwhile' });
  if (body.pillarId) {
    const known = await rowsOf(tx, 'select 1 from pillars where id = $1 and client_id = $2 and archived_at is null', [
      body.pillarId,
      piece.clientId,
    ]);
    if (known.length === 0) return fail({ code: 'pillar.unknown' });
  }
  if (body.leadId && body.leadId !== piece.leadId && !(await canLead(tx, piece.clientId, body.leadId)))
    return fail({ code: 'person.unknown' });
  if (body.shelved === true && !piece.shelved) {
    const [row] = await rowsOf<{ has: boolean }>(tx, `select ${HAS_LIVE_OUTPUTS} as has`, [pieceId]);
    if (row?.has) return fail({ code: 'piece.has_spin_offs' });
  }
  const given = EDITABLE.filter((key) => body[key] !== undefined);
  const detail = await changesIn(tx, piece, body, given);
  const aimBefore = await storedAim(tx, pieceId);
  Object.assign(piece, Object.fromEntries(given.map((key) => [key, body[key]])));
  piece.version += 1;
  await tx.save(piece);
  await recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: pieceId,
    verb: 'piece.edited',
    actor: viewer.name,
    detail,
    at: now,
  });
  await replan(tx, [pieceId], now);
  await pieceChanged.tell(tx, { id: pieceId, by: viewer }, now);
  await tellAimMoved(app, tx, viewer, piece, aimBefore);
  return ok(piece.version);
}

/** What changes, for the record: what has an id there by its name. */
async function changesIn(
  tx: Tx,
  piece: Piece,
  body: EditPieceBody,
  given: readonly (typeof EDITABLE)[number][],
): Promise<Record<string, { from: unknown; to: unknown }>> {
  const changed = given.filter((key) => piece[key] !== body[key]);
  const names = await rowsOf<{ id: string; name: string }>(
    tx,
    'select id, name from pillars where id = any($1) union all select id, name from people where id = any($2)',
    [[piece.pillarId, body.pillarId].filter((id) => id), [piece.leadId, body.leadId].filter((id) => id)],
  );
  const said = (key: (typeof EDITABLE)[number], value: unknown) =>
    key === 'pillarId' || key === 'leadId' ? (names.find(({ id }) => id === value)?.name ?? null) : value;
  return Object.fromEntries(changed.map((key) => [key.replace(/Id$/, ''), { from: said(key, piece[key]), to: said(key, body[key]) }]));
}
