import type { InterviewQuestionShape } from '@zesting/contract';
import { useState } from 'react';
import { wordsOf } from '../lib/api';
import { instantWords } from '../lib/format';
import { useKept } from '../lib/kept';
import { LinkedText } from './linked-text';

interface AnswerFieldProps {
  readonly question: InterviewQuestionShape;
  /** keeps an answer; without it answers are only read */
  readonly onKeep?: (question: InterviewQuestionShape, text: string) => Promise<unknown>;
  /** whether the one who is asked answers themselves: then there is a field for it at once */
  readonly isOwn?: boolean;
}

/** One question and its answer: to be read, written, and written anew. What is typed stays until it is kept. */
export function AnswerField({ question, onKeep, isOwn = false }: AnswerFieldProps) {
  const [typed, setTyped] = useKept<string>(`answer:${question.id}`);
  const [wrong, setWrong] = useState<string>();
  const [busy, setBusy] = useState(false);
  const isWriting = typed !== null || (isOwn && onKeep !== undefined && question.answer === '');
  const keep = async () => {
    if (!onKeep || typed === null) return;
    setBusy(true);
    setWrong(undefined);
    try {
      await onKeep(question, typed);
      setTyped(null);
    } catch (problem) {
      setWrong(`${wordsOf(problem)} What you typed is still here.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <li className="border-t border-line first:border-t-0 py-2.5">
      <p className="font-medium break-words">{question.question}</p>
      {question.answer !== '' && (
        <>
          <p className="whitespace-pre-wrap break-words max-w-[70ch]">
            <LinkedText text={question.answer} />
          </p>
          <p className="text-muted text-[13px]">
            {!isOwn && question.answeredBy}
            {!isOwn && ', '}
            {question.answeredAt && instantWords(question.answeredAt)}
            {onKeep && typed === null && (
              <button
                type="button"
                className="text-pine underline min-h-11 sm:min-h-6 ml-3"
                aria-label={`Change the answer to “${question.question}”`}
                onClick={() => setTyped(question.answer)}
              >
                Change
              </button>
            )}
          </p>
        </>
      )}
      {question.answer === '' && !onKeep && <p className="text-muted">Not answered yet.</p>}
      {question.answer === '' && onKeep && !isWriting && (
        <button
          type="button"
          className="text-pine underline text-[13px] min-h-6"
          aria-label={`Write down the answer to “${question.question}”`}
          onClick={() => setTyped('')}
        >
          Write down the answer
        </button>
      )}
      {isWriting && (
        <>
          <textarea
            aria-label={question.question}
            className="field mt-1"
            rows={typed === null ? 2 : 4}
            maxLength={10_000}
            value={typed ?? ''}
            onChange={(event) => setTyped(isOwn && event.target.value === '' && question.answer === '' ? null : event.target.value)}
          />
          {wrong && (
            <p role="alert" className="text-rhubarb font-medium">
              {wrong}
            </p>
          )}
          {typed !== null && (
            <p className="flex gap-4 mt-1">
              <button
                type="button"
                className="min-h-11 sm:min-h-8 px-3 rounded-md font-semibold bg-pine text-on-pine disabled:opacity-60"
                disabled={busy || typed.trim() === question.answer}
                onClick={() => void keep()}
              >
                {typed.trim() === '' && question.answer !== '' ? 'Take the answer back' : 'Keep this answer'}
              </button>
              <button type="button" className="underline min-h-11 sm:min-h-8" onClick={() => setTyped(null)}>
                {question.answer === '' ? 'Clear it' : 'Leave as it was'}
              </button>
            </p>
          )}
        </>
      )}
    </li>
  );
}
