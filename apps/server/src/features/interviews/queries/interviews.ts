import { dayIn } from '@zesting/core';
import type { InterviewShape, InterviewsShape, QuestionSetShape, QuestionSetsShape, RoomInterviewShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

type Row = Omit<InterviewShape, 'isPastDue' | 'answered'> & { readonly zone: string };

const QUESTIONS = `(select coalesce(jsonb_agg(jsonb_build_object('id', q.id, 'question', q.question, 'answer', q.answer, 'answeredBy', q.answered_by,
  'answeredAt', q.answered_at, 'version', q.version) order by q.position), '[]') from interview_questions q where q.interview_id = v.id)`;
const SELECT = `select v.id, v.client_id as "clientId", v.title, v.contact_id as "contactId", coalesce(x.name, v.answerer) as answerer, v.due_on as "dueOn",
    d.name as "askedBy", v.asked_at as "askedAt", v.closed_at as "closedAt", v.version, c.zone, ${QUESTIONS} as questions,
    case when p.id is not null then jsonb_build_object('kind', 'piece', 'id', p.id, 'title', p.title)
      when i.id is not null then jsonb_build_object('kind', 'idea', 'id', i.id, 'title', i.title) end as about
  from interviews v join clients c on c.id = v.client_id join people d on d.id = v.asked_by left join contacts x on x.id = v.contact_id
    left join ideas i on i.id = v.idea_id left join pieces p on p.id = coalesce(v.piece_id, i.piece_id)`;

const PAGE = 30;

const shapeOf =
  (app: App) =>
  ({ zone, ...row }: Row): InterviewShape => ({
    ...row,
    isPastDue: row.closedAt === null && row.dueOn !== null && row.dueOn < dayIn(app.clock.now(), zone),
    answered: row.questions.filter(({ answer }) => answer !== '').length,
  });

/** Interviews of these clients: the open ones by their day, those without one last; the closed ones the newest first. */
export async function interviewsOf(
  app: App,
  clientIds: readonly string[],
  state: 'open' | 'closed',
  after: number,
): Promise<InterviewsShape> {
  const isOpen = state === 'open';
  const rows = await app.read<Row>(
    `${SELECT} where v.client_id = any($1) and (v.closed_at is null) = $2 and c.archived_at is null
     order by ${isOpen ? 'v.due_on nulls last, v.asked_at, v.id' : 'v.asked_at desc, v.id'} limit ${PAGE + 1} offset $3`,
    [clientIds, isOpen, after],
  );
  const [counts] = await app.read<{ open: number; closed: number }>(
    `select count(*) filter (where v.closed_at is null)::int as open, count(*) filter (where v.closed_at is not null)::int as closed
     from interviews v join clients c on c.id = v.client_id and c.archived_at is null where v.client_id = any($1)`,
    [clientIds],
  );
  return {
    interviews: rows.slice(0, PAGE).map(shapeOf(app)),
    next: rows.length > PAGE ? String(after + PAGE) : null,
    counts: counts ?? { open: 0, closed: 0 },
  };
}

/** What was asked about an idea, also of what was combined into it; or about a piece, also while it was an idea. The oldest first. */
export async function interviewsAbout(app: App, of: { readonly ideaId: string } | { readonly pieceId: string }): Promise<InterviewShape[]> {
  const isIdea = 'ideaId' in of;
  const rows = await app.read<Row>(
    isIdea
      ? `${SELECT} where v.idea_id = $1 order by v.asked_at, v.id`
      : `${SELECT} where v.piece_id = $1 or v.idea_id in (select id from ideas where piece_id = $1) order by v.asked_at, v.id`,
    [isIdea ? of.ideaId : of.pieceId],
  );
  return rows.map(shapeOf(app));
}

export async function interviewShape(app: App, interviewId: string): Promise<InterviewShape> {
  const [row] = await app.read<Row>(`${SELECT} where v.id = $1`, [interviewId]);
  if (!row) throw new Error('the interview went away');
  return shapeOf(app)(row);
}

/** What waits for a contact's knowledge, the first due first. Answered ones stay, to be looked through, until they are closed. */
export async function interviewsFor(app: App, contactId: string): Promise<RoomInterviewShape[]> {
  const rows = await app.read<Row>(
    `${SELECT} where v.contact_id = $1 and v.closed_at is null order by v.due_on nulls last, v.asked_at, v.id limit 20`,
    [contactId],
  );
  return rows.map(shapeOf(app)).map(({ id, title, dueOn, isPastDue, questions }) => ({ id, title, dueOn, isPastDue, questions }));
}

/**
 * Sets of questions: those for the treatment of what is asked about first, then the client's own.
 * @param clientId null: those of every client that the viewer has, and of none
 */
export async function questionSetsOf(
  app: App,
  {
    clientIds,
    ideaId,
    pieceId,
  }: { readonly clientIds: readonly string[]; readonly ideaId: string | null; readonly pieceId: string | null },
): Promise<QuestionSetsShape> {
  const rows = await app.read<QuestionSetShape & { isArchived: boolean }>(
    `select s.id, s.client_id as "clientId", s.title, s.treatment, s.questions, s.version, s.archived_at is not null as "isArchived",
       s.treatment <> '' and exists (select 1 from topic_uses u where (u.idea_id = $2 or u.piece_id = $3)
         and lower(u.treatment) = lower(s.treatment)) as fits
     from question_sets s where s.client_id = any($1) or s.client_id is null
     order by fits desc, s.client_id is null, s.treatment, s.title, s.id`,
    [clientIds, ideaId, pieceId],
  );
  const shape = ({ isArchived: _isArchived, ...set }: (typeof rows)[number]): QuestionSetShape => set;
  return {
    sets: rows.filter(({ isArchived }) => !isArchived).map(shape),
    archived: rows.filter(({ isArchived }) => isArchived).map(shape),
  };
}
