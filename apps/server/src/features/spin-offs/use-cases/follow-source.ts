import { FACTS, follow, sameFact, factsOf, type FactPiece, type InstantText } from '@zesting/core';
import { isDeepStrictEqual } from 'node:util';
import { recordActivity } from '../../../platform/activity.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replan } from '../../planning/index.js';
import { lockPiece, Piece, pieceChanged, saveContent } from '../../production/index.js';
import { SpinOff } from '../entities/spin-off.entity.js';

interface Changed {
  readonly id: string;
  readonly by: { readonly name: string };
}

/**
 * A piece was changed. What was made from it follows in what is still the source's, as long as nobody was shown it; else it is marked as behind.
 * How the piece stands to its own source is reckoned anew. In the transaction of the change: outputs are locked after their source, in the
 * order of their ids.
 */
export async function followSource(tx: Tx, { id, by }: Changed, now: InstantText): Promise<void> {
  const own = await tx.findOneBy(SpinOff, { pieceId: id });
  if (own) {
    const output = await tx.findOneByOrFail(Piece, { id });
    const source = await tx.findOneByOrFail(Piece, { id: own.sourceId });
    await keep(tx, own, follow(output, own.seen, source, own, false));
  }
  const outputs = await tx.find(SpinOff, { where: { sourceId: id }, order: { pieceId: 'ASC' } });
  if (outputs.length === 0) return;
  const source = await tx.findOneByOrFail(Piece, { id });
  for (const { pieceId } of outputs) await bringUp(tx, pieceId, source, by, now);
}

/** Brings one output up to its source, as far as that goes by itself. */
export async function bringUp(tx: Tx, pieceId: string, source: Piece, by: Changed['by'], now: InstantText): Promise<void> {
  const output = await lockPiece(tx, pieceId);
  const spinOff = await tx.findOneBy(SpinOff, { pieceId }); // as it is under the lock
  if (!spinOff) return;
  const [row] = await rowsOf<{ shown: boolean }>(tx, 'select exists (select 1 from versions where piece_id = $1) as shown', [pieceId]);
  const { output: next, seen, followed, stale } = follow(asFacts(output), spinOff.seen, source, spinOff, !row?.shown);
  await keep(tx, spinOff, { seen, stale });
  if (followed.length === 0) return;
  await recordActivity(tx, {
    clientId: output.clientId,
    thing: 'piece',
    thingId: pieceId,
    verb: 'spin_off.followed',
    actor: by.name,
    detail: { source: source.title, facts: followed },
    at: now,
  });
  await putFacts(tx, by, output, next, now);
}

const asFacts = ({ title, purpose, content }: FactPiece): FactPiece => ({ title, purpose, content });

async function keep(tx: Tx, spinOff: SpinOff, { seen, stale }: Pick<ReturnType<typeof follow>, 'seen' | 'stale'>): Promise<void> {
  if (isDeepStrictEqual([seen, stale], [spinOff.seen, spinOff.stale])) return;
  await tx.update(SpinOff, spinOff.pieceId, { seen, stale: [...stale] });
}

/** Puts title, purpose and content into a piece that is locked; what follows from it follows. */
export async function putFacts(tx: Tx, by: Changed['by'], piece: Piece, next: FactPiece, now: InstantText): Promise<void> {
  const channelIds = Object.keys(piece.content.channels);
  const [was, is] = [factsOf(piece, channelIds), factsOf(next, channelIds)];
  const changed = FACTS.filter((fact) => !sameFact(fact, was, is));
  const isAround = changed.some((fact) => fact === 'title' || fact === 'purpose');
  if (isAround) Object.assign(piece, { title: next.title, purpose: next.purpose, version: piece.version + 1 });
  if (changed.some((fact) => fact !== 'title' && fact !== 'purpose')) await saveContent(tx, by, piece, next.content, now);
  else if (isAround) {
    await tx.save(piece);
    await replan(tx, [piece.id], now);
    await pieceChanged.tell(tx, { id: piece.id, by }, now);
  }
}
