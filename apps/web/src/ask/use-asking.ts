import type { AskFormShape, EarliestShape, SubmittedShape, UploadShape } from '@zesting/contract';
import { checkAnswers, fieldsOf, getDay, isEmailLike, type Answer, type AnswerProblem, type Answers } from '@zesting/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { problemWords } from '../asked/problem-words';
import type { Language } from '../language/language';
import { ApiProblem, call, wordsOf } from '../lib/api';
import { dropDraft, keepDraft, readDraft, sendingOf, type AskDraft } from './draft';

type Problems = Readonly<Record<string, string>>;

/** What fields hold before anybody answers, where nothing was typed. */
function presets(form: AskFormShape): Answers {
  return Object.fromEntries(fieldsOf(form.items).flatMap(({ key, preset }) => (preset === undefined ? [] : [[key, preset]])));
}

/** Answers whose questions are still asked. */
function stillAsked(form: AskFormShape, answers: Answers): Answers {
  const keys = new Set(fieldsOf(form.items).map(({ key }) => key));
  return Object.fromEntries(Object.entries(answers).filter(([key]) => keys.has(key)));
}

/** What was typed earlier, brought to the form as it is asked now. */
function takenUp(form: AskFormShape): AskDraft {
  const kept = readDraft(form.linkId);
  return {
    ...kept,
    answers: { ...(kept.version === undefined ? presets(form) : {}), ...stillAsked(form, kept.answers) },
    version: kept.version ?? form.version,
  };
}

/** Checks everything that the form can tell before sending, in words; the server checks the same again. */
function problemsOf(form: AskFormShape, draft: AskDraft, language: Language): Problems {
  const { problems } = checkAnswers(form.items, draft.answers, { todayOn: getDay(form.todayOn), files: draft.files });
  return {
    ...inWords(form, problems, language),
    ...(draft.name.trim() === '' ? { name: language.t('Tell us your name.') } : {}),
    ...(isEmailLike(draft.email.trim()) ? {} : { email: language.t('An e-mail address is needed, so that we can answer.') }),
  };
}

function inWords(form: AskFormShape, problems: Readonly<Record<string, AnswerProblem>>, language: Language): Problems {
  const fields = new Map(fieldsOf(form.items).map((field) => [field.key, field]));
  return Object.fromEntries(
    Object.entries(problems).map(([key, problem]) => [
      key,
      problemWords(problem, fields.get(key) ?? { key, kind: 'short', label: key }, language),
    ]),
  );
}

/** A form being filled in: what is typed is kept over a reload; pressing Send twice makes one request. */
export function useAsking(given: AskFormShape, language: Language) {
  const [form, setForm] = useState(given);
  const [draft, setDraft] = useState(() => takenUp(given));
  const [problems, setProblems] = useState<Problems>({});
  const [failure, setFailure] = useState<string>();
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<SubmittedShape>();
  const [openedAt, setOpenedAt] = useState(() => performance.now());
  const [website, setWebsite] = useState('');
  const underWay = useRef(new Map<string, number>());
  const onUnderWay = useCallback((key: string, count: number) => void underWay.current.set(key, count), []);
  useEffect(() => {
    if (!done) keepDraft(form.linkId, draft);
  }, [draft, done, form.linkId]);

  const show = (page: HTMLElement, found: Problems) => {
    setProblems(found);
    requestAnimationFrame(() => {
      const wrong = page.querySelector<HTMLElement>('[aria-invalid="true"]');
      wrong?.focus();
      wrong?.scrollIntoView({ block: 'center' });
    });
  };
  /** What is being put right is not called wrong any more. */
  const forget = (keys: readonly string[]) =>
    setProblems((before) =>
      keys.some((key) => key in before) ? Object.fromEntries(Object.entries(before).filter(([key]) => !keys.includes(key))) : before,
    );
  /** The form as it is asked now; what was typed stays where its question is still asked. */
  const loadAnew = async () => {
    const now = await call<AskFormShape>(`/ask/${form.linkId}`);
    setForm(now);
    setOpenedAt(performance.now()); // its stamp is new
    setDraft((before) => ({ ...before, answers: { ...presets(now), ...stillAsked(now, before.answers) } }));
    return now;
  };
  /** @param page holds the fields: the first that is wrong is gone to */
  const send = async (page: HTMLElement) => {
    if (busy) return;
    const found = problemsOf(form, draft, language);
    if (Object.keys(found).length > 0) return show(page, found);
    if ([...underWay.current.values()].some((count) => count > 0))
      return setFailure(language.t('A file is still on its way. Wait until it has arrived, or take it out.'));
    setProblems({});
    setFailure(undefined);
    setBusy(true);
    const sending = sendingOf({ ...draft, answers: checkAnswers(form.items, draft.answers, { todayOn: getDay(form.todayOn) }).answers });
    keepDraft(form.linkId, { ...draft, sent: sending });
    setDraft({ ...draft, sent: sending });
    try {
      // nobody is that quick but a browser that fills in by itself: the server takes nothing within moments of opening
      await new Promise((resolve) => setTimeout(resolve, Math.max(0, openedAt + LEAST_MS - performance.now())));
      const body = { ...(JSON.parse(sending.body) as object), version: form.version, stamp: form.stamp, website };
      const submitted = await call<SubmittedShape>(`/ask/${form.linkId}/requests`, { method: 'POST', body, idempotencyKey: sending.key });
      dropDraft(form.linkId);
      setDone(submitted);
      window.scrollTo(0, 0);
    } catch (error) {
      setFailure(language.t(wordsOf(error)));
      if (!(error instanceof ApiProblem)) return;
      if (error.code === 'request.answers_wrong') show(page, inWords(form, error.errors as Record<string, AnswerProblem>, language));
      else if (error.code === 'http.invalid')
        show(page, Object.fromEntries(Object.keys(error.errors).map((key) => [key, language.t('This is not right.')])));
      else if (error.code === 'ask.form_changed' || error.code === 'ask.not_opened') await loadAnew().catch(() => undefined);
    } finally {
      setBusy(false);
    }
  };
  return {
    form,
    draft,
    problems,
    failure,
    busy,
    done,
    website,
    setWebsite,
    onUnderWay,
    send,
    isOfOlder: draft.version !== undefined && draft.version < form.version,
    change: (part: Partial<Pick<AskDraft, 'name' | 'email'>>) => {
      forget(Object.keys(part));
      setDraft((before) => ({ ...before, ...part }));
    },
    /** Who fills it in, where nothing was typed yet. */
    introduce: ({ name, email }: Pick<AskDraft, 'name' | 'email'>) =>
      setDraft((before) => ({ ...before, name: before.name || name, email: before.email || email })),
    answer: (key: string, value: Answer) => {
      forget([key]);
      setDraft((before) => ({ ...before, answers: { ...before.answers, [key]: value } }));
    },
    addFile: (key: string, file: UploadShape) => {
      forget([key]);
      setDraft((before) => ({
        ...before,
        files: { ...before.files, [file.assetId]: file },
        answers: { ...before.answers, [key]: [...[before.answers[key] ?? []].flat(), file.assetId] },
      }));
    },
  };
}

/** As the server has it, and a little more. */
const LEAST_MS = 2_500;
const SETTLED_MS = 400;

/** The earliest realistic day for what is asked so far, reckoned anew once the answers rest. */
export function useEarliest(form: AskFormShape, answers: Answers): EarliestShape {
  const [earliest, setEarliest] = useState(form.earliest);
  const told = JSON.stringify(answers);
  useEffect(() => {
    const stop = new AbortController();
    const timer = setTimeout(() => {
      call<EarliestShape>(`/ask/${form.linkId}/earliest`, {
        method: 'POST',
        body: { answers: JSON.parse(told) as Answers },
        signal: stop.signal,
      })
        .then(setEarliest)
        .catch(() => undefined); // what was told before stays
    }, SETTLED_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [told, form.linkId]);
  return earliest;
}
