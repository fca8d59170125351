import { dayInWords, fail, getDay, isWorkingDay, ok, type InstantText, type Result } from '@zesting/core';
import type { AskMaterialBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { queueMail } from '../../../platform/mail/mail.js';
import { hello, untell } from '../../notices/index.js';
import { clientKey, getDoer, loadCalendars, replan } from '../../planning/index.js';
import { lockPiece, stepKey, stepsOf, todayOf } from '../../production/index.js';
import { Delivery } from '../entities/delivery.entity.js';
import { dueOf } from '../queries/deliveries.js';

type AskFailure = {
  code:
    | 'step.not_a_delivery'
    | 'contact.unknown'
    | 'packet.due_in_past'
    | 'packet.due_on_day_off'
    | 'path.follower_begun'
    | 'piece.other_client';
};

interface Wanted {
  readonly stepId: string;
  /** null: as the plan has it */
  readonly dueOn: string | null;
  /** null: nothing beside the step's name */
  readonly words: string | null;
}

interface Asked {
  readonly title: string;
  readonly dueOn: string;
  readonly words: string;
}

/**
 * Asks a contact to bring what steps wait for, in one mail. Asked again, a step that was said to be done opens, where nobody has begun what follows
 * it; what was brought stays.
 */
export function askForMaterial(app: App, viewer: Viewer, stepId: string, body: AskMaterialBody): Promise<Result<null, AskFailure>> {
  return app.write<null, AskFailure>(async (tx, now) => {
    const wanted: Wanted[] = [
      { stepId, dueOn: body.dueOn, words: body.words.trim() },
      ...body.alsoIds.filter((id) => id !== stepId).map((id) => ({ stepId: id, dueOn: null, words: null })),
    ];
    const pieces = await rowsOf<{ id: string; piece_id: string; client_id: string }>(
      tx,
      'select s.id, s.piece_id, p.client_id from steps s join pieces p on p.id = s.piece_id where s.id = any($1) order by s.piece_id, s.id',
      [wanted.map((one) => one.stepId)],
    );
    const clientId = pieces.find(({ id }) => id === stepId)?.client_id;
    if (clientId === undefined || pieces.length < wanted.length || pieces.some((piece) => piece.client_id !== clientId))
      return fail({ code: 'piece.other_client' });
    const client = getDoer(await loadCalendars(tx, now), clientKey(clientId));
    if (body.dueOn < client.todayOn) return fail({ code: 'packet.due_in_past' });
    if (!isWorkingDay(client.calendar, getDay(body.dueOn))) return fail({ code: 'packet.due_on_day_off' });
    const [contact] = await rowsOf<ContactRow>(
      tx,
      'select id, name, email, link_generation as generation from contacts where id = $1 and client_id = $2 and archived_at is null',
      [body.contactId, clientId],
    );
    if (!contact) return fail({ code: 'contact.unknown' });
    const asked: Asked[] = [];
    for (const { id, piece_id: pieceId } of pieces) {
      const one = wanted.find((other) => other.stepId === id);
      if (!one) throw new Error('a step that nobody wants');
      const done = await askFor(tx, viewer, pieceId, one, contact, (latest, earliest) => dueOf(client, latest, earliest), now);
      if (!done.ok) return done;
      asked.push(done.value);
    }
    await replan(tx, [...new Set(pieces.map((piece) => piece.piece_id))], now);
    await mailAsked(app, tx, contact, asked);
    return ok(null);
  });
}

interface ContactRow {
  id: string;
  name: string;
  email: string;
  generation: number;
}

async function askFor(
  tx: Tx,
  viewer: Viewer,
  pieceId: string,
  { stepId, dueOn, words }: Wanted,
  contact: ContactRow,
  dueBy: (latestOn: string | null, earliestOn: string | null) => string,
  now: InstantText,
): Promise<Result<Asked, AskFailure>> {
  const piece = await lockPiece(tx, pieceId);
  const steps = await stepsOf(tx, pieceId);
  const step = steps.find(({ id }) => id === stepId);
  if (step?.kind !== 'deliver') return fail({ code: 'step.not_a_delivery' });
  if (step.finishedOn !== null) {
    if (steps.some((other) => other.predecessorIds.includes(stepId) && other.startedOn !== null))
      return fail({ code: 'path.follower_begun' });
    step.finishedOn = null;
  }
  step.startedOn ??= await todayOf(tx, step, now);
  await tx.save(step);
  const before = await tx.findOneBy(Delivery, { stepId });
  const told = { dueOn: dueOn ?? dueBy(step.latestFinishOn, step.earliestFinishOn), words: words ?? before?.words ?? '' };
  await tx.upsert(
    Delivery,
    {
      stepId,
      pieceId,
      contactId: contact.id,
      ...told,
      askedBy: viewer.personId,
      askedAt: now,
      times: (before?.times ?? 0) + 1,
      broughtAt: null,
      broughtBy: null,
      broughtWords: '',
    },
    ['stepId'],
  );
  for (const key of [stepKey(step), `brought:${stepId}`]) await untell(tx, key);
  await recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: pieceId,
    verb: before ? 'material.asked_again' : 'material.asked',
    actor: viewer.name,
    detail: { step: step.title, contact: contact.name, dueOn: told.dueOn },
    at: now,
  });
  return ok({ title: `${step.title}: ${piece.title}`, ...told });
}

async function mailAsked(app: App, tx: Tx, contact: ContactRow, asked: readonly Asked[]): Promise<void> {
  const address = app.links.address('room', contact.id, contact.generation);
  const [first] = asked;
  await queueMail(tx, {
    to: contact.email,
    subject: asked.length === 1 ? `We need something from you: ${first?.title ?? ''}` : `We need ${asked.length} things from you`,
    paragraphs: [
      hello(contact.name),
      'To go on we need the following from you. Files, links and words can be left in your room, bit by bit.',
    ],
    lists: [
      {
        title: 'What we need',
        ordered: false,
        items: asked.map(({ title, dueOn, words }) => ({
          text: `${title}, by ${dayInWords(getDay(dueOn))}${words === '' ? '' : `: ${words}`}`,
          address,
        })),
      },
    ],
    links: [{ text: 'Bring it to your room', address }],
  });
}
