import type { AskFormShape, SubmittedShape } from '@zesting/contract';
import { checkAnswers, getDay, type Answer, type AnswerProblem } from '@zesting/core';
import { useCallback, useEffect, useRef, useState, type FormEvent } from 'react';
import { ApiProblem, call, wordsOf } from '../lib/api';
import { Field } from '../ui/field';
import { VisitorFrame } from '../ui/visitor-frame';
import { AskField } from './ask-field';
import { dropDraft, keepDraft, readDraft, sendingOf, type AskDraft } from './draft';

const PROBLEM_WORDS: Record<AnswerProblem, string> = {
  required: 'This is needed.',
  too_long: 'This is too long.',
  not_an_option: 'Choose one of the options.',
  not_a_date: 'This is not a date.',
  in_the_past: 'This day has passed.',
  not_a_link: 'A full address is needed, beginning with https://',
  unknown_field: 'The form has changed: load the page again.',
  wrong_shape: 'This cannot be read.',
};

/** Checks everything that the form can tell before sending; the server checks the same again. */
function problemsOf(form: AskFormShape, draft: AskDraft): Record<string, string> {
  const problems = checkAnswers(form.fields, draft.answers, getDay(form.todayOn));
  return {
    ...Object.fromEntries(Object.entries(problems).map(([key, problem]) => [key, PROBLEM_WORDS[problem]])),
    ...(draft.name.trim() === '' ? { name: 'Tell us your name.' } : {}),
    ...(/^\S+@\S+\.\S+$/.test(draft.email.trim()) ? {} : { email: 'An e-mail address is needed, so that we can answer.' }),
  };
}

/** The client's intake form. What is typed is kept over a reload; pressing Send twice makes one request. */
export function AskForm({ form }: { form: AskFormShape }) {
  const [draft, setDraft] = useState(() => readDraft(form.linkId));
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [failure, setFailure] = useState<string>();
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<SubmittedShape>();
  const page = useRef<HTMLFormElement>(null);
  const underWay = useRef(new Map<string, number>());
  const noteUnderWay = useCallback((key: string, count: number) => void underWay.current.set(key, count), []);
  useEffect(() => {
    if (!done) keepDraft(form.linkId, draft);
  }, [draft, done, form.linkId]);

  const answer = (key: string, value: Answer) => setDraft((before) => ({ ...before, answers: { ...before.answers, [key]: value } }));
  const showProblems = (found: Record<string, string>) => {
    setProblems(found);
    requestAnimationFrame(() => page.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus());
  };

  const send = async (event: FormEvent) => {
    event.preventDefault();
    if (busy) return;
    const found = problemsOf(form, draft);
    if (Object.keys(found).length > 0) return showProblems(found);
    if ([...underWay.current.values()].some((count) => count > 0))
      return setFailure('A file is still on its way. Wait until it has arrived, or take it out.');
    setProblems({});
    setFailure(undefined);
    setBusy(true);
    const sending = sendingOf(draft);
    keepDraft(form.linkId, { ...draft, sent: sending });
    setDraft({ ...draft, sent: sending });
    try {
      const submitted = await call<SubmittedShape>(`/ask/${form.linkId}/requests`, {
        method: 'POST',
        body: JSON.parse(sending.body),
        idempotencyKey: sending.key,
      });
      dropDraft(form.linkId);
      setDone(submitted);
      window.scrollTo(0, 0);
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'request.answers_wrong')
        showProblems(
          Object.fromEntries(Object.entries(error.errors).map(([key, problem]) => [key, PROBLEM_WORDS[problem as AnswerProblem]])),
        );
      else if (error instanceof ApiProblem && error.code === 'http.invalid')
        showProblems(Object.fromEntries(Object.keys(error.errors).map((key) => [key, 'This is not right.'])));
      setFailure(wordsOf(error));
    } finally {
      setBusy(false);
    }
  };

  if (done) return <Sent form={form} done={done} email={draft.email} />;
  return (
    <VisitorFrame visited={form}>
      <h1 className="text-2xl mb-1">{form.title}</h1>
      {form.intro && <p className="text-muted mb-5">{form.intro}</p>}
      <form ref={page} noValidate onSubmit={(event) => void send(event)}>
        {form.fields.map((field) => (
          <AskField
            key={field.key}
            field={field}
            form={form}
            draft={draft}
            error={problems[field.key]}
            onAnswer={answer}
            onDraft={setDraft}
            onUnderWay={noteUnderWay}
          />
        ))}
        <hr className="border-line my-5" />
        <Field label="Your name" required error={problems['name']}>
          {(control) => (
            <input
              {...control}
              className="field"
              autoComplete="name"
              value={draft.name}
              onChange={(event) => setDraft({ ...draft, name: event.target.value })}
            />
          )}
        </Field>
        <Field
          label="Your e-mail"
          required
          error={problems['email']}
          help="We send a receipt there, with a page that shows how your request stands."
        >
          {(control) => (
            <input
              {...control}
              className="field"
              type="email"
              autoComplete="email"
              value={draft.email}
              onChange={(event) => setDraft({ ...draft, email: event.target.value })}
            />
          )}
        </Field>
        {failure && (
          <p role="alert" className="text-rhubarb font-medium mb-3">
            {failure}
          </p>
        )}
        <button
          type="submit"
          disabled={busy}
          className="w-full sm:w-auto min-h-11 px-8 rounded-md bg-pine text-on-pine font-semibold disabled:opacity-60"
        >
          {busy ? 'Sending…' : 'Send'}
        </button>
      </form>
    </VisitorFrame>
  );
}

interface SentProps {
  readonly form: AskFormShape;
  readonly done: SubmittedShape;
  readonly email: string;
}

function Sent({ form, done, email }: SentProps) {
  return (
    <VisitorFrame visited={form}>
      <div role="status">
        <h1 className="text-2xl mb-2">We have your request</h1>
        <p className="mb-4">
          It is number {done.number}. A receipt is on its way to {email}.
        </p>
      </div>
      <a
        href={done.receiptAddress}
        className="inline-flex items-center min-h-11 px-6 rounded-md bg-pine text-on-pine font-semibold no-underline"
      >
        See how it stands
      </a>
      <p className="mt-5">
        <a href={window.location.pathname} className="text-pine underline">
          Ask for something else
        </a>
      </p>
    </VisitorFrame>
  );
}
