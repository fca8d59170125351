import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { BroughtBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tellManagers, untell } from '../../notices/index.js';
import { replan } from '../../planning/index.js';
import {
  finishStep,
  isAvailable,
  lockPiece,
  nextAfter,
  stepKey,
  stepsOf,
  tellNext,
  type Piece,
  type Step,
} from '../../production/index.js';
import { IsNull } from 'typeorm';
import { Delivery } from '../entities/delivery.entity.js';
import { Material } from '../entities/material.entity.js';
import { putAway, putMaterial, type AddFailure } from './add-material.js';

type NotAsked = { code: 'access.not_found' };
type Over = { code: 'step.already_finished' };

interface Locked {
  readonly piece: Piece;
  readonly step: Step;
  readonly delivery: Delivery | null;
}

/** Locks the piece of a step in which the client brings something. A contact only reaches what they were asked for. */
async function lockDelivery(tx: Tx, stepId: string, contactId: string | null): Promise<Result<Locked, NotAsked>> {
  const [row] = await rowsOf<{ piece_id: string }>(tx, 'select piece_id from steps where id = $1', [stepId]);
  if (!row) return fail({ code: 'access.not_found' });
  const piece = await lockPiece(tx, row.piece_id);
  const step = (await stepsOf(tx, piece.id)).find(({ id }) => id === stepId);
  const delivery = await tx.findOneBy(Delivery, { stepId });
  if (step?.kind !== 'deliver' || (contactId !== null && delivery?.contactId !== contactId)) return fail({ code: 'access.not_found' });
  return ok({ piece, step, delivery });
}

/** Keeps one thing that a contact brings. Also after they said that it is all: those who manage are told. */
export function addBrought(app: App, contactId: string, stepId: string, body: BroughtBody): Promise<Result<string, AddFailure | NotAsked>> {
  return app.write<string, AddFailure | NotAsked>(async (tx, now) => {
    const locked = await lockDelivery(tx, stepId, contactId);
    if (!locked.ok) return locked;
    const { piece, step } = locked.value;
    const name = await contactName(tx, contactId);
    const added = await putMaterial(tx, piece, { contactId, name, stepId }, body, 'original', now);
    if (added.ok && step.finishedOn !== null)
      await tellManagers(app, tx, {
        clientId: piece.clientId,
        pieceId: piece.id,
        heading: `More has come: ${piece.title}`,
        text: `${name} brought more for “${step.title}” of “${piece.title}”.`,
        path: `/pieces/${piece.id}#material`,
        key: `brought-more:${stepId}`,
      });
    return added;
  });
}

/** Takes back what a contact brought by mistake, until they say that it is all. */
export function takeBroughtBack(app: App, contactId: string, stepId: string, materialId: string): Promise<Result<null, NotAsked | Over>> {
  return app.write<null, NotAsked | Over>(async (tx, now) => {
    const locked = await lockDelivery(tx, stepId, contactId);
    if (!locked.ok) return locked;
    const { piece, step } = locked.value;
    const material = await tx.findOneBy(Material, { id: materialId, contactId, stepId });
    if (!material) return fail({ code: 'access.not_found' });
    if (step.finishedOn !== null) return fail({ code: 'step.already_finished' });
    await putAway(tx, piece, await contactName(tx, contactId), material, true, now);
    return ok(null);
  });
}

/** Who says that everything is there: the contact in their room, or whoever manages the client, of what came another way. */
export type Bringer = { readonly contactId: string } | { readonly viewer: Viewer };

/** Finishes the client's step: what waited for it can begin, and whoever has that is told. */
export function broughtAll(
  app: App,
  by: Bringer,
  stepId: string,
  words: string,
): Promise<Result<null, NotAsked | Over | { code: 'material.nothing_yet' | 'step.not_available' }>> {
  return app.write<null, NotAsked | Over | { code: 'material.nothing_yet' | 'step.not_available' }>(async (tx, now) => {
    const locked = await lockDelivery(tx, stepId, 'contactId' in by ? by.contactId : null);
    if (!locked.ok) return locked;
    const { piece, step, delivery } = locked.value;
    if (step.finishedOn !== null) return fail({ code: 'step.already_finished' });
    const said = words.trim();
    if ('contactId' in by && said === '' && (await tx.countBy(Material, { stepId, removedAt: IsNull() })) === 0)
      return fail({ code: 'material.nothing_yet' });
    if (!isAvailable(step, await stepsOf(tx, piece.id))) return fail({ code: 'step.not_available' });
    const name = 'viewer' in by ? by.viewer.name : await contactName(tx, by.contactId);
    if (delivery) await tx.update(Delivery, { stepId }, { broughtAt: now, broughtBy: name, broughtWords: said });
    await finishStep(tx, step, now);
    await untell(tx, stepKey(step));
    await noteBrought(tx, piece, name, step, said, now);
    await replan(tx, [piece.id], now);
    await tellBrought(app, tx, by, { piece, step, name, said });
    return ok(null);
  });
}

async function tellBrought(
  app: App,
  tx: Tx,
  by: Bringer,
  { piece, step, name, said }: { readonly piece: Piece; readonly step: Step; readonly name: string; readonly said: string },
): Promise<void> {
  const because = `“${step.title}” of “${piece.title}” has come.`;
  const doer = 'viewer' in by ? by.viewer.personId : null;
  for (const next of nextAfter(step, await stepsOf(tx, piece.id))) await tellNext(app, tx, { personId: doer }, piece, because, next);
  if ('viewer' in by) return;
  await tellManagers(app, tx, {
    clientId: piece.clientId,
    pieceId: piece.id,
    heading: `It has come: ${step.title}, ${piece.title}`,
    text: `${name} brought what was asked for “${step.title}” of “${piece.title}”${said === '' ? '.' : `, and says: “${said}”`}`,
    path: `/pieces/${piece.id}#material`,
    key: `brought:${step.id}`,
  });
}

const noteBrought = (tx: Tx, piece: Piece, actor: string, step: Step, said: string, at: InstantText): Promise<void> =>
  recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: piece.id,
    verb: 'material.brought',
    actor,
    detail: { step: step.title, ...(said === '' ? {} : { words: said }) },
    at,
  });

async function contactName(tx: Tx, id: string): Promise<string> {
  const [contact] = await rowsOf<{ name: string }>(tx, 'select name from contacts where id = $1', [id]);
  if (!contact) throw new Error('the contact went away');
  return contact.name;
}
