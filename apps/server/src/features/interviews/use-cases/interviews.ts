import { dayInWords, fail, getDay, ok, type Result } from '@zesting/core';
import { QUESTIONS_MOST, type AskInterviewBody, type EditInterviewBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tellManagers, tellOutside, untell } from '../../notices/index.js';
import { Interview, InterviewQuestion } from '../entities/interview.entity.js';

export type InterviewFailure = {
  code: 'idea.unknown' | 'piece.unknown' | 'contact.unknown' | 'interview.about_two' | 'interview.too_many' | 'http.changed_meanwhile';
};

/** Puts questions to a contact, who hears of it by mail and answers in the room, or to somebody whose answers the team writes down. */
export function askInterview(
  app: App,
  viewer: Viewer,
  clientId: string,
  body: AskInterviewBody,
): Promise<Result<string, InterviewFailure>> {
  return app.write<string, InterviewFailure>(async (tx, now) => {
    const { ideaId = null, pieceId = null, contactId, dueOn } = body;
    if (ideaId !== null && pieceId !== null) return fail({ code: 'interview.about_two' });
    const [found] = await rowsOf<{ idea: boolean; piece: boolean; contact: boolean }>(
      tx,
      `select $2::uuid is null or exists (select 1 from ideas where id = $2 and client_id = $1 and state in ('open', 'used')) as idea,
         $3::uuid is null or exists (select 1 from pieces where id = $3 and client_id = $1) as piece,
         $4::uuid is null or exists (select 1 from contacts where id = $4 and client_id = $1 and archived_at is null) as contact`,
      [clientId, ideaId, pieceId, contactId],
    );
    if (!found?.idea) return fail({ code: 'idea.unknown' });
    if (!found.piece) return fail({ code: 'piece.unknown' });
    if (!found.contact) return fail({ code: 'contact.unknown' });
    const title = body.title.trim();
    const id = await insertRow(tx, Interview, {
      clientId,
      ideaId,
      pieceId,
      title,
      contactId,
      answerer: contactId === null ? (body.answerer?.trim() ?? '') : '',
      dueOn,
      askedBy: viewer.personId,
      askedAt: now,
      closedAt: null,
      version: 1,
    });
    await addQuestions(tx, id, body.questions, 0);
    if (contactId !== null) await tellAsked(app, tx, { contactId, title, dueOn, count: body.questions.length });
    await noteOfClient(tx, viewer, clientId, 'interview.asked', { interview: title, questions: body.questions.length }, now);
    return ok(id);
  });
}

/** Names an interview anew, gives it another day, or asks more in it. */
export function editInterview(
  app: App,
  viewer: Viewer,
  interviewId: string,
  body: EditInterviewBody,
  version: number,
): Promise<Result<null, InterviewFailure>> {
  return app.write<null, InterviewFailure>(async (tx, now) => {
    const interview = await lockInterview(tx, interviewId);
    if (interview.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const asked = await tx.countBy(InterviewQuestion, { interviewId });
    const more = body.questions ?? [];
    if (asked + more.length > QUESTIONS_MOST) return fail({ code: 'interview.too_many' });
    const before = { title: interview.title, dueOn: interview.dueOn };
    const after = { title: body.title?.trim() ?? before.title, dueOn: body.dueOn === undefined ? before.dueOn : body.dueOn };
    const changes = { ...changesBetween(before, after), ...(more.length > 0 ? { asked: more } : {}) };
    if (Object.keys(changes).length === 0) return ok(null);
    await addQuestions(tx, interviewId, more, asked);
    // more to answer opens it again
    await tx.update(Interview, interviewId, { ...after, ...(more.length > 0 ? { closedAt: null } : {}), version: version + 1 });
    if (more.length > 0 && interview.contactId !== null)
      await tellAsked(app, tx, { contactId: interview.contactId, ...after, count: more.length });
    await noteOfClient(tx, viewer, interview.clientId, 'interview.changed', { interview: before.title, ...changes }, now);
    return ok(null);
  });
}

/** Closes an interview, whatever is answered, or opens it again. A closed one stands in the room no more. */
export function setInterviewState(app: App, viewer: Viewer, interviewId: string, state: 'open' | 'closed'): Promise<Result<null>> {
  return app.write<null, never>(async (tx, now) => {
    const interview = await lockInterview(tx, interviewId);
    if ((interview.closedAt !== null) === (state === 'closed')) return ok(null);
    await tx.update(Interview, interviewId, { closedAt: state === 'closed' ? now : null, version: interview.version + 1 });
    const verb = state === 'closed' ? 'interview.closed' : 'interview.opened';
    await noteOfClient(tx, viewer, interview.clientId, verb, { interview: interview.title }, now);
    return ok(null);
  });
}

export type AnswerFailure = { code: 'access.not_found' | 'interview.closed' | 'http.changed_meanwhile' };

/** Who answers: the contact in their room, or one of the team who writes down what they heard. */
export type Answering = { readonly contactId: string } | { readonly viewer: Viewer };

/** Takes an answer; an empty one takes it back. Who asks hears of what a contact answered, once for all of an interview. */
export function answerQuestion(
  app: App,
  by: Answering,
  questionId: string,
  text: string,
  version: number,
): Promise<Result<null, AnswerFailure>> {
  return app.write<null, AnswerFailure>(async (tx, now) => {
    const found = await tx.findOneBy(InterviewQuestion, { id: questionId });
    if (!found) return fail({ code: 'access.not_found' });
    const interview = await lockInterview(tx, found.interviewId);
    if ('contactId' in by && interview.contactId !== by.contactId) return fail({ code: 'access.not_found' });
    if (interview.closedAt !== null) return fail({ code: 'interview.closed' });
    const question = await tx.findOneByOrFail(InterviewQuestion, { id: questionId });
    if (question.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const answer = text.trim();
    if (answer === question.answer) return ok(null);
    const name = 'viewer' in by ? by.viewer.name : await contactName(tx, by.contactId);
    const said = answer === '' ? { answeredBy: null, answeredAt: null } : { answeredBy: name, answeredAt: now };
    await tx.update(InterviewQuestion, questionId, { answer, ...said, version: version + 1 });
    if ('contactId' in by) await tellAnswered(app, tx, interview, name);
    const detail = {
      interview: interview.title,
      question: question.question,
      answer: { from: question.answer || null, to: answer || null },
    };
    await noteOfClient(tx, { name }, interview.clientId, 'interview.answered', detail, now);
    return ok(null);
  });
}

async function tellAnswered(app: App, tx: Tx, { id, clientId, title }: Interview, name: string): Promise<void> {
  const questions = await tx.findBy(InterviewQuestion, { interviewId: id });
  const answered = questions.filter(({ answer }) => answer !== '').length;
  const key = `interview:${id}`;
  if (answered === 0) return untell(tx, key);
  await tellManagers(app, tx, {
    clientId,
    heading: `Answered: ${title}`,
    text: `${name} has answered ${answered} of ${questions.length} questions in “${title}”.`,
    path: `/plan/questions?interview=${id}`,
    key,
  });
}

async function tellAsked(
  app: App,
  tx: Tx,
  { contactId, title, dueOn, count }: { contactId: string; title: string; dueOn: string | null; count: number },
): Promise<void> {
  const [contact] = await rowsOf<{ name: string; email: string; generation: number }>(
    tx,
    'select name, email, link_generation as generation from contacts where id = $1 and archived_at is null',
    [contactId],
  );
  if (!contact) return;
  await tellOutside(
    tx,
    contact,
    `${count === 1 ? 'A question' : `${count} questions`} for you: ${title}`,
    [
      `We would like to know more about “${title}” from you. A few words on each question are enough, in any order; what you have written is kept.`,
      ...(dueOn === null ? [] : [`It would help us to have your answers by ${dayInWords(getDay(dueOn))}.`]),
    ],
    { text: 'Answer in your room', address: app.links.address('room', contactId, contact.generation) },
  );
}

const addQuestions = (tx: Tx, interviewId: string, questions: readonly string[], from: number): Promise<unknown> =>
  tx.insert(
    InterviewQuestion,
    questions.map((question, index) => ({
      interviewId,
      position: from + index,
      question: question.trim(),
      answer: '',
      answeredBy: null,
      answeredAt: null,
      version: 1,
    })),
  );

const lockInterview = (tx: Tx, id: string): Promise<Interview> =>
  tx.findOneOrFail(Interview, { where: { id }, lock: { mode: 'pessimistic_write' } });

async function contactName(tx: Tx, id: string): Promise<string> {
  const [contact] = await rowsOf<{ name: string }>(tx, 'select name from contacts where id = $1', [id]);
  if (!contact) throw new Error('the contact went away');
  return contact.name;
}
