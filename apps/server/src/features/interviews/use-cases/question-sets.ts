import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { NewQuestionSetBody, QuestionSetBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, type Tx } from '../../../platform/database/transaction.js';
import { QuestionSet } from '../entities/question-set.entity.js';

type SetFailure = { code: 'access.refused' | 'http.changed_meanwhile' };

const tidy = ({ title, treatment, questions }: QuestionSetBody) => ({
  title: title.trim(),
  treatment: treatment.trim(),
  questions: questions.map((question) => question.trim()),
});

/** Keeps questions to be asked again, for one client or for all. */
export function addQuestionSet(app: App, viewer: Viewer, body: NewQuestionSetBody): Promise<Result<string, SetFailure>> {
  return app.write<string, SetFailure>(async (tx, now) => {
    const { clientId } = body;
    if (clientId !== null && !viewer.clientIds.includes(clientId)) return fail({ code: 'access.refused' });
    const set = { clientId, ...tidy(body), archivedAt: null, version: 1 };
    const id = await insertRow(tx, QuestionSet, set);
    await record(tx, viewer, set, 'question_set.added', {}, now);
    return ok(id);
  });
}

export function editQuestionSet(
  app: App,
  viewer: Viewer,
  setId: string,
  body: QuestionSetBody,
  version: number,
): Promise<Result<null, SetFailure>> {
  return app.write<null, SetFailure>(async (tx, now) => {
    const set = await lockSet(tx, setId);
    if (set.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const { title, treatment, questions } = set;
    const next = tidy(body);
    const changes = changesBetween({ title, treatment, questions }, next);
    if (Object.keys(changes).length === 0) return ok(null);
    await tx.update(QuestionSet, setId, { ...next, version: version + 1 });
    await record(tx, viewer, set, 'question_set.changed', changes, now);
    return ok(null);
  });
}

/** Archives a set, or brings it back. What was asked with it stays as it is. */
export function setQuestionSetAway(app: App, viewer: Viewer, setId: string, isAway: boolean): Promise<Result<null, SetFailure>> {
  return app.write<null, SetFailure>(async (tx, now) => {
    const set = await lockSet(tx, setId);
    if ((set.archivedAt !== null) === isAway) return ok(null);
    await tx.update(QuestionSet, setId, { archivedAt: isAway ? now : null, version: set.version + 1 });
    await record(tx, viewer, set, isAway ? 'question_set.archived' : 'question_set.restored', {}, now);
    return ok(null);
  });
}

const lockSet = (tx: Tx, id: string): Promise<QuestionSet> =>
  tx.findOneOrFail(QuestionSet, { where: { id }, lock: { mode: 'pessimistic_write' } });

/** Writes it into the record of the client whose set it is, or of the agency. */
async function record(
  tx: Tx,
  viewer: Viewer,
  { clientId, title }: Pick<QuestionSet, 'clientId' | 'title'>,
  verb: string,
  changes: object,
  at: InstantText,
): Promise<void> {
  const [agency] = (await tx.query('select id from agencies')) as { id: string }[]; // one row, by its table
  await recordActivity(tx, {
    clientId,
    thing: clientId === null ? 'agency' : 'client',
    thingId: clientId ?? agency?.id ?? '',
    verb,
    actor: viewer.name,
    detail: { set: title, ...changes },
    at,
  });
}
