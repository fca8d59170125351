import type { AskFormShape, EarliestShape, SubmittedShape } from '@zesting/contract';
import { AskedItems } from '../asked/asked-items';
import { answerServing, parseDay } from '@zesting/core';
import { lazy, Suspense } from 'react';
import { LanguageContext, LANGUAGES, useLanguage, type Language } from '../language/language';
import { Field } from '../ui/field';
import { VisitorFrame } from '../ui/visitor-frame';
import { useAsking, useEarliest } from './use-asking';

interface AskFormProps {
  /** of the contact's room, where they came from it */
  readonly roomToken: string | null;
}

/** The client's intake form, in the language that it is written in. */
export function AskForm({ form, roomToken }: AskFormProps & { form: AskFormShape }) {
  return (
    <LanguageContext value={LANGUAGES[form.language]}>
      <div lang={form.language}>{form.state === 'open' ? <Asking given={form} roomToken={roomToken} /> : <NotNow form={form} />}</div>
    </LanguageContext>
  );
}

// only who comes from their own room is told what is known
const Known = lazy(() => import('./known').then((module) => ({ default: module.Known })));

function Asking({ given, roomToken }: AskFormProps & { given: AskFormShape }) {
  const language = useLanguage();
  const { t } = language;
  const asking = useAsking(given, language);
  const { form, draft, problems, failure, busy } = asking;
  const earliest = useEarliest(form, draft.answers);
  if (asking.done) return <Sent form={form} done={asking.done} email={draft.email} />;
  return (
    <VisitorFrame visited={form}>
      <h1 className={`text-2xl ${form.intro ? 'mb-1' : 'mb-4'}`}>{form.title}</h1>
      {form.intro && <p className="text-muted mb-5 whitespace-pre-wrap">{form.intro}</p>}
      {asking.isOfOlder && (
        <p role="status" className="card border-l-4 border-l-lake px-3 py-2 mb-4">
          {t('This form has changed since you began. What you typed is kept where its question is still asked.')}
        </p>
      )}
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void asking.send(event.currentTarget);
        }}
      >
        <AskedItems
          items={form.items}
          answers={draft.answers}
          problems={problems}
          onAnswer={asking.answer}
          todayOn={form.todayOn}
          earliestOn={earliest.earliestOn}
          earliestWhy={whyThen(earliest, language)}
          noticeOn={form.noticeOn}
          files={draft.files}
          uploadTo={`/ask/${form.linkId}/uploads`}
          onFile={asking.addFile}
          onUnderWay={asking.onUnderWay}
        />
        {roomToken !== null && (
          <Suspense>
            <Known
              roomToken={roomToken}
              title={answerServing(form.items, draft.answers, 'title') ?? ''}
              on={dayOf(answerServing(form.items, draft.answers, 'wish_date'))}
              onKnown={asking.introduce}
            />
          </Suspense>
        )}
        <hr className="border-line my-5" />
        <Field label={t('Your name')} required error={problems['name']}>
          {(control) => (
            <input
              {...control}
              className="field"
              autoComplete="name"
              value={draft.name}
              onChange={(event) => asking.change({ name: event.target.value })}
            />
          )}
        </Field>
        <Field
          label={t('Your e-mail')}
          required
          error={problems['email']}
          help={t('We send a receipt there, with a page that shows how your request stands.')}
        >
          {(control) => (
            <input
              {...control}
              className="field"
              type="email"
              autoComplete="email"
              value={draft.email}
              onChange={(event) => asking.change({ email: event.target.value })}
            />
          )}
        </Field>
        <Unseen value={asking.website} onChange={asking.setWebsite} />
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
          {busy ? t('Sending…') : t('Send')}
        </button>
      </form>
    </VisitorFrame>
  );
}

/** A day, while it is being typed none. */
const dayOf = (text: string | undefined): string | null => (text && parseDay(text) ? text : null);

/** Why nothing sooner is realistic, without a name. */
function whyThen({ earliestOn, pathOn, steps, days }: EarliestShape, { t }: Language): string | undefined {
  if (steps === 0) return undefined;
  return earliestOn > pathOn
    ? t('It takes {{steps}} steps over {{days}} working days, after what we have in hand.', { steps, days })
    : t('It takes {{steps}} steps over {{days}} working days.', { steps, days });
}

/** A field that only a program fills in: nobody sees it, reads it out or comes to it by keyboard. */
function Unseen({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  return (
    <div aria-hidden className="absolute -left-[9999px] h-px w-px overflow-hidden">
      <input name="website" tabIndex={-1} autoComplete="off" value={value} onChange={(event) => onChange(event.target.value)} />
    </div>
  );
}

interface SentProps {
  readonly form: AskFormShape;
  readonly done: SubmittedShape;
  readonly email: string;
}

function Sent({ form, done, email }: SentProps) {
  const { t } = useLanguage();
  return (
    <VisitorFrame visited={form}>
      <div role="status">
        <h1 className="text-2xl mb-2">{t('We have your request')}</h1>
        {form.thanks && <p className="mb-2 whitespace-pre-wrap">{form.thanks}</p>}
        <p className="mb-4">
          {t('It is number {{number}}. A receipt is on its way to {{email}}.', { number: done.number, email })}
          {form.answerDays > 0 && ` ${t('We answer within {{days}} working days.', { days: form.answerDays })}`}
        </p>
      </div>
      <a
        href={done.receiptAddress}
        className="inline-flex items-center min-h-11 px-6 rounded-md bg-pine text-on-pine font-semibold no-underline"
      >
        {t('See how it stands')}
      </a>
      <p className="mt-5">
        <a href={window.location.pathname} className="text-pine underline">
          {t('Ask for something else')}
        </a>
      </p>
    </VisitorFrame>
  );
}

/** Before the form opens and after it closes. */
function NotNow({ form }: { form: AskFormShape }) {
  const { t, dayWords } = useLanguage();
  return (
    <VisitorFrame visited={form}>
      <h1 className="text-2xl mb-2">{form.title}</h1>
      <p>
        {form.state === 'early' && form.opensOn !== null
          ? t('This form opens on {{day}}.', { day: dayWords(form.opensOn, null) })
          : t('This form closed on {{day}}.', { day: dayWords(form.closesOn ?? form.todayOn, null) })}
      </p>
    </VisitorFrame>
  );
}
