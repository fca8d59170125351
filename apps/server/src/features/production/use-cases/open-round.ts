import { randomUUID } from 'node:crypto';
import { getValue, type RouteStep } from '@zesting/core';
import type { Tx } from '../../../platform/database/transaction.js';
import { findRoute } from '../../planning/index.js';
import type { Piece } from '../entities/piece.entity.js';
import { Step } from '../entities/step.entity.js';
import { stepsOf } from '../piece-store.js';

/** The steps done again when changes are asked: those the route marks, else the last making step, the check and the sign-off. */
export function reworkSteps(route: readonly RouteStep[]): RouteStep[] {
  const marked = route.filter((step) => step.reworkSpanDays !== undefined);
  if (marked.length > 0) return marked;
  const lastMade = route.filter((step) => step.kind === 'make').at(-1);
  return route.filter((step) => step === lastMade || step.kind !== 'make');
}

/** Opens the next round: adds the rework steps in a row after all others, with the doers of the round before. */
export async function openRound(tx: Tx, piece: Piece): Promise<Step[]> {
  const route = getValue(await findRoute(tx, piece.routeId));
  piece.round += 1;
  await tx.save(piece);
  return appendSteps(tx, piece, reworkSteps(route.steps));
}

/** Adds a sign-off step at the end: what was signed has changed and goes to the client again, without rework. */
export async function appendSignOff(tx: Tx, piece: Piece): Promise<void> {
  const route = getValue(await findRoute(tx, piece.routeId));
  await appendSteps(tx, piece, route.steps.filter((step) => step.kind === 'sign_off').slice(-1));
}

async function appendSteps(tx: Tx, piece: Piece, added: readonly RouteStep[]): Promise<Step[]> {
  const steps = await stepsOf(tx, piece.id);
  const last = steps.at(-1);
  let before = last ? [last.id] : [];
  const made = added.map((step, index) => {
    const id = randomUUID();
    const predecessorIds = before;
    before = [id];
    return tx.create(Step, {
      id,
      pieceId: piece.id,
      key: step.key,
      title: step.title,
      kind: step.kind,
      skill: step.skill,
      doerId: steps.findLast((other) => other.key === step.key)?.doerId ?? null,
      withId: steps.findLast((other) => other.key === step.key)?.withId ?? null,
      spanDays: step.reworkSpanDays ?? step.spanDays,
      effortMinutes: step.reworkEffortMinutes ?? step.effortMinutes,
      remainingMinutes: null,
      sameDay: step.sameDay ?? false,
      optional: step.optional ?? false,
      checklist: [...(step.checklist ?? [])],
      pinnedFinishOn: null,
      predecessorIds,
      position: (last?.position ?? -1) + 1 + index,
      round: piece.round,
      startedOn: null,
      finishedOn: null,
      remark: null,
      assignedOn: null,
      version: 1,
    });
  });
  await tx.insert(Step, made);
  return made;
}
