import { fail, ok, seenNow, withFacts, type Result } from '@zesting/core';
import type { SettleFactsBody, SpinOffBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { lockPiece, Piece } from '../../production/index.js';
import { handedTo, markOf } from '../adapting.js';
import { SpinOff } from '../entities/spin-off.entity.js';
import { bringUp, followSource, putFacts } from './follow-source.js';
import { isWhole } from './make-spin-offs.js';

type NoSpinOff = { code: 'access.not_found' };

/** Takes over what the source says, or keeps what the output says, field by field. The source is only read. */
export function settleFacts(
  app: App,
  viewer: Pick<Viewer, 'name'>,
  pieceId: string,
  { facts: asked, mark }: SettleFactsBody,
): Promise<Result<null, NoSpinOff | { code: 'http.changed_meanwhile' }>> {
  return app.write<null, NoSpinOff | { code: 'http.changed_meanwhile' }>(async (tx, now) => {
    const found = await locked(tx, pieceId);
    if (!found) return fail({ code: 'access.not_found' });
    const { piece, spinOff } = found;
    const source = await tx.findOneByOrFail(Piece, { id: spinOff.sourceId });
    const handed = handedTo(spinOff, source);
    if (markOf(handed) !== mark) return fail({ code: 'http.changed_meanwhile' });
    const chosen = (choice: 'take' | 'keep') => asked.filter((one) => one.choice === choice).map(({ fact }) => fact);
    const [taken, kept] = [chosen('take'), chosen('keep')];
    await tx.update(SpinOff, pieceId, { seen: seenNow(spinOff.seen, handed, [...taken, ...kept]) });
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'spin_off.settled',
      actor: viewer.name,
      detail: { source: source.title, ...(taken.length > 0 ? { taken } : {}), ...(kept.length > 0 ? { kept } : {}) },
      at: now,
    });
    await putFacts(
      tx,
      viewer,
      piece,
      withFacts({ title: piece.title, purpose: piece.purpose, content: piece.content }, handed, taken),
      now,
    );
    await followSource(tx, { id: pieceId, by: viewer }, now); // also where nothing of the piece itself was changed
    return ok(null);
  });
}

/** Changes what an output is called beside its source, what it asks people to do, and where a clip begins and ends. */
export function editSpinOff(
  app: App,
  viewer: Pick<Viewer, 'name'>,
  pieceId: string,
  body: SpinOffBody,
): Promise<Result<null, NoSpinOff | { code: 'spin_off.stretch_backwards' }>> {
  return app.write<null, NoSpinOff | { code: 'spin_off.stretch_backwards' }>(async (tx, now) => {
    const found = await locked(tx, pieceId);
    if (!found) return fail({ code: 'access.not_found' });
    if (!isWhole(body)) return fail({ code: 'spin_off.stretch_backwards' });
    const { piece, spinOff } = found;
    const { fromSecond, toSecond } = body;
    await tx.update(SpinOff, pieceId, { name: body.name.trim(), callToAction: body.callToAction.trim(), fromSecond, toSecond });
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'spin_off.edited',
      actor: viewer.name,
      detail: { name: body.name.trim() },
      at: now,
    });
    // what the source hands on reads otherwise now: to this one alone
    await bringUp(tx, pieceId, await tx.findOneByOrFail(Piece, { id: spinOff.sourceId }), viewer, now);
    return ok(null);
  });
}

/** Cuts an output loose: it stays as it is, refers to its source still, and follows it no more. */
export function cutLoose(app: App, viewer: Pick<Viewer, 'name'>, pieceId: string): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const found = await locked(tx, pieceId);
    if (!found) return ok(null);
    const source = await tx.findOneByOrFail(Piece, { id: found.spinOff.sourceId });
    await tx.delete(SpinOff, pieceId);
    await recordActivity(tx, {
      clientId: found.piece.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'spin_off.cut_loose',
      actor: viewer.name,
      detail: { source: source.title },
      at: now,
    });
    return ok(null);
  });
}

async function locked(tx: Tx, pieceId: string): Promise<{ piece: Piece; spinOff: SpinOff } | undefined> {
  const piece = await lockPiece(tx, pieceId);
  const spinOff = await tx.findOneBy(SpinOff, { pieceId });
  return spinOff ? { piece, spinOff } : undefined;
}
