import type { InterviewQuestionShape, InterviewShape } from '@zesting/contract';
import { call } from '../lib/api';
import { useWrite } from '../lib/queries';
import { AnswerField } from '../ui/answer-field';

/** The questions of an interview with their answers; who manages writes down what they heard. */
export function InterviewAnswers({ interview, canWrite }: { interview: InterviewShape; canWrite: boolean }) {
  const answer = useWrite(
    ({ question, text }: { question: InterviewQuestionShape; text: string }) =>
      call(`/questions/${question.id}/answer`, { method: 'PUT', body: { text }, version: question.version }),
    { quiet: true },
  );
  return (
    <ul>
      {interview.questions.map((question) => (
        <AnswerField
          key={question.id}
          question={question}
          {...(canWrite && interview.closedAt === null
            ? { onKeep: (of: InterviewQuestionShape, text: string) => answer.mutateAsync({ question: of, text }) }
            : {})}
        />
      ))}
    </ul>
  );
}
