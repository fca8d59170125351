import {
  dayIn,
  digestParts,
  fail,
  isFree,
  ok,
  PART_SCHEME,
  frozen,
  tidied,
  CLIENT_KINDS,
  type Content,
  type Day,
  type InstantText,
  type Result,
} from '@zesting/core';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { Event } from '../../platform/events.js';
import { askForCut } from '../../platform/files/pictures.js';
import { untell } from '../notices/index.js';
import { Piece } from './entities/piece.entity.js';
import { Step } from './entities/step.entity.js';
import { Version } from './entities/version.entity.js';

/** Loads a piece and locks its row: the first thing of every write to it. A missing piece is a bug, since access was checked. */
export const lockPiece = (tx: Tx, pieceId: string): Promise<Piece> =>
  tx.findOneOrFail(Piece, { where: { id: pieceId }, lock: { mode: 'pessimistic_write' } });

/** A piece's steps in their order. */
export const stepsOf = (tx: Tx, pieceId: string): Promise<Step[]> => tx.find(Step, { where: { pieceId }, order: { position: 'ASC' } });

/** Puts a content into a piece and digests it anew. What was thought of besides stays where the content says nothing of it. */
export function setContent(piece: Piece, content: Content): void {
  const { others = piece.content.shared.others } = content.shared;
  piece.content = tidied({ ...content, shared: { ...content.shared, ...(others ? { others } : {}) } });
  piece.digests = digestParts(piece.clientId, piece.id, piece.content);
  piece.contentVersion += 1;
}

/** Has pictures cut as the channels of a content show them, so that they lie ready when they are wanted. */
export async function askForCuts(tx: Tx, { channels }: Content): Promise<void> {
  for (const { crops = {} } of Object.values(channels)) for (const [hash, crop] of Object.entries(crops)) await askForCut(tx, hash, crop);
}

/** Whether there is anything to look at. */
export const hasContent = (content: Content): boolean =>
  content.shared.copy.trim() !== '' ||
  content.shared.media.length > 0 ||
  (content.shared.texts ?? []).length > 0 ||
  Object.values(content.channels).some((part) => part.copy.trim() !== '');

/** Freezes the working copy as a version; the same content as the newest version is that version. */
export async function freezeVersion(tx: Tx, piece: Piece, personId: string | null, now: InstantText): Promise<Version> {
  const newest = await tx.findOne(Version, { where: { pieceId: piece.id }, order: { number: 'DESC' } });
  if (newest && sameDigests(newest, piece)) return newest;
  return tx.save(
    tx.create(Version, {
      pieceId: piece.id,
      number: (newest?.number ?? 0) + 1,
      content: frozen(piece.content),
      digests: piece.digests,
      scheme: PART_SCHEME,
      frozenAt: now,
      frozenBy: personId,
    }),
  );
}

function sameDigests(version: Version, piece: Piece): boolean {
  const ids = Object.keys(piece.digests.channels);
  return (
    version.digests.shared === piece.digests.shared &&
    Object.keys(version.digests.channels).length === ids.length &&
    ids.every((id) => version.digests.channels[id] === piece.digests.channels[id])
  );
}

/** Whether a step's predecessors are all finished. */
export const isAvailable = (step: Step, steps: readonly Step[]): boolean =>
  isFree(step.predecessorIds, new Set(steps.filter(({ finishedOn }) => finishedOn !== null).map(({ id }) => id)));

/** Today for whoever does a step: the person, else the client, else the agency. */
export async function todayOf(tx: Tx, step: Step, now: InstantText): Promise<Day> {
  const [row] = await rowsOf<{ zone: string }>(
    tx,
    `select coalesce(
       (select zone from people where id = $1),
       (select c.zone from pieces p join clients c on c.id = p.client_id where p.id = $2 and $3 = any($4)),
       (select zone from agencies limit 1)) as zone`,
    [step.doerId, step.pieceId, step.kind, CLIENT_KINDS],
  );
  if (!row) throw new Error('there is no agency');
  return dayIn(now, row.zone);
}

/** What notices about a step stand under: the newest replaces the one before, and what is undone takes it away. */
export const stepKey = (step: Pick<Step, 'id'>): string => `step:${step.id}`;

/** What a piece says of itself was changed: title, purpose or content. */
export const pieceChanged = new Event<{ readonly id: string; readonly by: { readonly name: string } }>();

/** A step was finished, by whomever. */
export const stepFinished = new Event<{ readonly id: string; readonly pieceId: string }>();

/** Finishes a step today; one that was never begun began today too. */
export async function finishStep(tx: Tx, step: Step, now: InstantText): Promise<void> {
  const today = await todayOf(tx, step, now);
  step.startedOn ??= today;
  step.finishedOn = today < step.startedOn ? step.startedOn : today;
  await tx.save(step);
  // what still waits to be told about it has had its answer
  for (const key of [`reminder:${step.id}`, `past-due:${step.id}`]) await untell(tx, key);
  await stepFinished.tell(tx, step, now);
}

/** The step of a piece that the client must decide now, if there is one. */
export const openSignOffStep = (steps: readonly Step[]): Step | undefined =>
  steps.find((step) => step.kind === 'sign_off' && step.finishedOn === null && isAvailable(step, steps));

/** Steps that became available when `finished` was finished. */
export const nextAfter = (finished: Step, steps: readonly Step[]): Step[] =>
  steps.filter((step) => step.finishedOn === null && step.predecessorIds.includes(finished.id) && isAvailable(step, steps));

/** Loads and locks the piece of a step, then the step. */
export async function lockStep(tx: Tx, stepId: string): Promise<{ piece: Piece; step: Step; steps: Step[] }> {
  const { pieceId } = await tx.findOneByOrFail(Step, { id: stepId });
  const piece = await lockPiece(tx, pieceId);
  const steps = await stepsOf(tx, pieceId);
  const step = steps.find((other) => other.id === stepId);
  if (!step) throw new Error('the step went away');
  return { piece, step, steps };
}

/** The channels of a client; `channel.unknown` when one of the ids is not among them. */
export async function checkChannels(
  tx: Tx,
  clientId: string,
  channelIds: readonly string[],
): Promise<Result<null, { code: 'channel.unknown' }>> {
  const rows = await rowsOf(tx, 'select id from channels where client_id = $1 and id = any($2) and archived_at is null', [
    clientId,
    channelIds,
  ]);
  return rows.length === new Set(channelIds).size ? ok(null) : fail({ code: 'channel.unknown' });
}

/** Skills got other names, all at once, so that two that change places do not become one. */
export const renameSkillsOfSteps = (tx: Tx, from: readonly string[], to: readonly string[]): Promise<unknown> =>
  tx.query(
    "update steps s set skill = n.new from unnest($1::text[], $2::text[]) n (old, new) where s.skill = n.old and s.kind not in ('deliver', 'sign_off')",
    [from, to],
  );
