import type { InterviewQuestionShape, RoomInterviewShape } from '@zesting/contract';
import { call } from '../lib/api';
import { dayWords } from '../lib/format';
import { AnswerField } from '../ui/answer-field';
import { Tag } from '../ui/tags';

interface KnowledgeProps {
  readonly interviews: readonly RoomInterviewShape[];
  readonly contactId: string;
  /** whether the agency looks: then nothing can be answered */
  readonly isView: boolean;
  readonly onAnswered: () => void;
}

/** What the agency would like to know from this contact: each answer is kept by itself, in any order. */
export function Knowledge({ interviews, contactId, isView, onAnswered }: KnowledgeProps) {
  const keep = async ({ id, version }: InterviewQuestionShape, text: string) => {
    await call(`/room/${contactId}/questions/${id}/answer`, { method: 'PUT', body: { text }, version });
    onAnswered();
  };
  return interviews.map((interview) => {
    const answered = interview.questions.filter(({ answer }) => answer !== '').length;
    return (
      <section key={interview.id} aria-label={interview.title} className="card p-4 mb-5">
        <header className="flex flex-wrap items-center gap-2">
          <h2 className="text-lg break-words">{interview.title}</h2>
          {interview.dueOn && answered < interview.questions.length && (
            <Tag tone={interview.isPastDue ? 'rhubarb' : 'lake'}>
              {interview.isPastDue ? `Was due ${dayWords(interview.dueOn)}` : `Answer by ${dayWords(interview.dueOn)}`}
            </Tag>
          )}
          <Tag tone={answered === interview.questions.length ? 'pine' : 'calm'}>
            {answered} of {interview.questions.length} answered
          </Tag>
        </header>
        <p className="text-muted text-[13px] mb-1">We would like to know from you. A few words are enough, in any order.</p>
        <ul>
          {interview.questions.map((question) => (
            <AnswerField key={question.id} question={question} isOwn {...(isView ? {} : { onKeep: keep })} />
          ))}
        </ul>
      </section>
    );
  });
}
