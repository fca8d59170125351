import {
  EMPTY_CHANNEL_PART,
  EMPTY_SHARED_PART,
  FACTS,
  fail,
  handedOn,
  areClipTimes,
  madeAnew,
  ok,
  withFacts,
  type InstantText,
  type Result,
} from '@zesting/core';
import type { MakeSpinOffsBody, OutputBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { putPiece, type BeginFailure } from '../../calendar/index.js';
import { Outlooks, type Named } from '../../planning/index.js';
import { giveFirst, giveStep, lockPiece, stepsOf, type Piece } from '../../production/index.js';
import { adaptingOf } from '../adapting.js';
import { Spread, type SpreadLine } from '../entities/spread.entity.js';
import { SpinOff } from '../entities/spin-off.entity.js';

export type ChosenFailure = {
  code: 'spread.unknown' | 'spread.archived' | 'spread.line_unknown' | 'spin_off.stretch_backwards';
};
export type MakeFailure = BeginFailure | ChosenFailure | { code: 'spin_off.nothing_chosen' | 'http.changed_meanwhile' };

/**
 * Makes pieces from a source by a spread, all of them or none. Each begins with what the source hands on, refers to it, stands on its channel
 * on its day, and is given to whom its line names. The source is only read.
 */
export async function makeSpinOffs(
  app: App,
  viewer: Viewer,
  sourceId: string,
  body: MakeSpinOffsBody,
): Promise<Result<string[], MakeFailure>> {
  const outlooks = body.giveFirst ? await Outlooks.load(app) : null;
  return app.write<string[], MakeFailure>(async (tx, now) => {
    const source = await lockPiece(tx, sourceId);
    if ((await tx.countBy(SpinOff, { sourceId })) !== body.known) return fail({ code: 'http.changed_meanwhile' });
    if (body.outputs.length === 0) return fail({ code: 'spin_off.nothing_chosen' });
    const spread = await tx.findOneBy(Spread, { id: body.spreadId, clientId: source.clientId });
    const chosen = chosenOf(spread, body.outputs);
    if (!chosen.ok) return chosen;
    const made: string[] = [];
    for (const { line, output } of chosen.value) {
      const piece = await makeOne(app, tx, viewer, { source, spreadId: body.spreadId, line, output, outlooks }, now);
      if (!piece.ok) return piece;
      made.push(piece.value);
    }
    await recordActivity(tx, {
      clientId: source.clientId,
      thing: 'piece',
      thingId: sourceId,
      verb: 'piece.spun_off',
      actor: viewer.name,
      detail: { spread: spread?.name, count: made.length },
      at: now,
    });
    return ok(made);
  });
}

export interface Chosen {
  readonly line: SpreadLine;
  readonly output: OutputBody;
}

/** The chosen outputs with their lines. */
export function chosenOf(spread: Spread | null, outputs: readonly OutputBody[]): Result<Chosen[], ChosenFailure> {
  if (!spread) return fail({ code: 'spread.unknown' });
  if (spread.archivedAt !== null) return fail({ code: 'spread.archived' });
  const chosen: Chosen[] = [];
  for (const output of outputs) {
    const line = spread.lines.find(({ key }) => key === output.lineKey);
    if (!line) return fail({ code: 'spread.line_unknown' });
    if (!isWhole(output)) return fail({ code: 'spin_off.stretch_backwards' });
    chosen.push({ line, output });
  }
  return ok(chosen);
}

/** Whether a clip has both of its times, in their order, or neither. */
export const isWhole = ({ fromSecond, toSecond }: Pick<OutputBody, 'fromSecond' | 'toSecond'>): boolean =>
  fromSecond === null || toSecond === null ? fromSecond === toSecond : areClipTimes({ from: fromSecond, to: toSecond });

/** Who a line names for its skills. */
export const namedBy = ({ doers }: SpreadLine): Named => Object.fromEntries(doers.map(({ skill, personId }) => [skill, personId]));

interface One extends Chosen {
  readonly source: Piece;
  readonly spreadId: string;
  readonly outlooks: Outlooks | null;
}

async function makeOne(
  app: App,
  tx: Tx,
  viewer: Viewer,
  { source, spreadId, line, output, outlooks }: One,
  now: InstantText,
): Promise<Result<string, BeginFailure>> {
  const name = output.name.trim();
  const channelIds = line.channelId === null ? [] : [line.channelId];
  const adapting = adaptingOf(line, name);
  const facts = handedOn(source, channelIds, adapting);
  const [route] = await rowsOf<{ lays_out: boolean }>(
    tx,
    'select coalesce(f.is_laid_out, false) as lays_out from routes r left join formats f on f.id = r.format_id where r.id = $1',
    [line.routeId],
  );
  const shared = route?.lays_out && facts.laidOut !== undefined ? { ...EMPTY_SHARED_PART, isLaidOut: true } : EMPTY_SHARED_PART;
  const empty = { shared, channels: Object.fromEntries(channelIds.map((id) => [id, EMPTY_CHANNEL_PART])) };
  const inherited = FACTS.filter((fact) => !adapting.anew.includes(fact));
  const { title, purpose, content } = withFacts({ title: facts.title, purpose: null, content: empty }, facts, inherited);
  const pillars = await rowsOf<{ id: string }>(tx, 'select id from pillars where id = $1 and archived_at is null', [source.pillarId]);
  const piece = await putPiece(
    tx,
    viewer,
    source.clientId,
    {
      routeId: line.routeId,
      channelIds,
      title,
      purpose,
      pillarId: pillars[0]?.id ?? null,
      notes: line.change,
      wishOn: output.on,
      isPencilled: output.on !== null && channelIds.length > 0,
      fromId: source.id,
    },
    now,
    { content },
  );
  if (!piece.ok) return piece;
  await tx.insert(SpinOff, {
    pieceId: piece.value,
    sourceId: source.id,
    clientId: source.clientId,
    spreadId,
    lineKey: line.key,
    name,
    shape: line.shape,
    callToAction: line.callToAction,
    anew: madeAnew(line),
    guidelineId: line.guidelineId,
    obstacle: line.obstacle,
    offset: line.offset,
    fromSecond: output.fromSecond,
    toSecond: output.toSecond,
    seen: facts,
    stale: [],
    madeAt: now,
  });
  await give(app, tx, viewer, { id: piece.value, clientId: source.clientId }, namedBy(line), outlooks, now);
  return piece;
}

/** Gives the steps to whom the line names, the others to whoever is free first where that is asked for. What cannot be given stays with nobody. */
async function give(
  app: App,
  tx: Tx,
  viewer: Viewer,
  piece: { readonly id: string; readonly clientId: string },
  named: Named,
  outlooks: Outlooks | null,
  now: InstantText,
): Promise<void> {
  if (outlooks) return giveFirst(app, tx, viewer, piece, outlooks, now, named);
  for (const { id: stepId, skill } of await stepsOf(tx, piece.id))
    if (named[skill] !== undefined) await giveStep(app, tx, viewer, { stepId, personId: named[skill] }, now);
}
