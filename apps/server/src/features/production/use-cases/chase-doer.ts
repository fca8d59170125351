import { dayInWords, fail, getDay, ok, type Result } from '@zesting/core';
import type { ChaseShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { queueMail } from '../../../platform/mail/mail.js';
import { hello } from '../../notices/index.js';

interface StepRow {
  piece_id: string;
  client_id: string;
  title: string;
  piece_title: string;
  name: string;
  email: string;
  latest_finish_on: string | null;
}

type Nobody = { code: 'step.nobody_to_chase' };

async function openStep(tx: Tx, stepId: string): Promise<Result<StepRow, Nobody>> {
  const [row] = await rowsOf<StepRow>(
    tx,
    `select s.piece_id, p.client_id, s.title, p.title as piece_title, d.name, d.email, s.latest_finish_on
     from steps s join pieces p on p.id = s.piece_id join people d on d.id = s.doer_id and d.active where s.id = $1 and s.finished_on is null`,
    [stepId],
  );
  return row ? ok(row) : fail({ code: 'step.nobody_to_chase' });
}

/** The words of a chase, ready to be sent to whoever has the step. */
export async function chaseOfStep(app: App, viewer: Viewer, stepId: string): Promise<Result<ChaseShape, Nobody>> {
  const step = await openStep(app.manager, stepId);
  if (!step.ok) return step;
  const { name, email, title, piece_title: piece, latest_finish_on: by } = step.value;
  return ok({
    receivers: [{ name, email }],
    subject: `How far is “${title}” of ${piece}?`,
    text: `${by ? `“${title}” of “${piece}” is due by ${dayInWords(getDay(by))}.` : `“${title}” of “${piece}” waits for you.`} How far are you, and is anything in your way?\n\nBest wishes,\n${viewer.name}`,
  });
}

/** Sends the words to whoever has the step, at once and by itself. */
export function chaseDoer(app: App, viewer: Viewer, stepId: string, text: string): Promise<Result<null, Nobody>> {
  return app.write<null, Nobody>(async (tx, now) => {
    const step = await openStep(tx, stepId);
    if (!step.ok) return step;
    const { name, email, title, piece_title: piece, piece_id: pieceId, client_id: clientId } = step.value;
    await queueMail(tx, {
      to: email,
      subject: `How far is “${title}” of ${piece}?`,
      paragraphs: [hello(name), ...text.split(/\n{2,}/)],
      links: [{ text: 'Open it', address: app.address(`/pieces/${pieceId}`) }],
    });
    await recordActivity(tx, {
      clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'step.chased',
      actor: viewer.name,
      detail: { step: title, to: name },
      at: now,
    });
    return ok(null);
  });
}
