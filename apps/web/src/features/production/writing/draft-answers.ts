import type { BriefRequestShape } from '@zesting/contract';
import { fieldsOf, type DraftAnswer, type FieldKind, type FormField } from '@zesting/core';
import { dayWords } from '../../../lib/format';

/** Answers that are no words to write with. */
const NO_WORDS: readonly FieldKind[] = ['files', 'money', 'email', 'phone', 'link', 'yes_no'];

/** What the brief's requests say that a draft could take up, each question with its answer in words. */
export function draftAnswers(requests: readonly Pick<BriefRequestShape, 'items' | 'answers'>[]): DraftAnswer[] {
  return requests.flatMap(({ items, answers }) =>
    fieldsOf(items)
      .filter(({ kind }) => !NO_WORDS.includes(kind))
      .flatMap((field) => {
        const answer = wordsOf(field, answers[field.key]);
        return answer.trim() === '' ? [] : [{ question: field.label, answer }];
      }),
  );
}

function wordsOf({ kind, options }: FormField, answer: string | readonly string[] | undefined): string {
  if (answer === undefined) return '';
  const all = typeof answer === 'string' ? [answer] : answer;
  if (kind === 'day' || kind === 'span') return all.map((on) => dayWords(on)).join(' to ');
  return all.map((value) => options?.find((option) => option.value === value)?.label ?? value).join(', ');
}
