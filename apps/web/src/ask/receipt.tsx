import type { ReceiptShape } from '@zesting/contract';
import { lazy, Suspense, useState } from 'react';
import { LanguageContext, LANGUAGES, useLanguage } from '../language/language';
import { call, wordsOf } from '../lib/api';
import { VisitorFrame } from '../ui/visitor-frame';

// what sends files comes after how the request stands
const AnswerBack = lazy(() => import('./answer-back').then((module) => ({ default: module.AnswerBack })));

const STAGES = [
  { key: 'received', words: 'We have it' },
  { key: 'planned', words: 'Accepted and planned' },
  { key: 'in_production', words: 'Being made' },
  { key: 'with_client', words: 'With you for sign-off' },
  { key: 'approved', words: 'Approved' },
  { key: 'published', words: 'Published' },
] as const;

const EXPECTED = {
  pencilled: { words: 'planned, may still move' },
  scheduled: { words: 'approved' },
  out: { words: 'published' },
} as const;

/** How a request stands, for the one who sent it, in the language that they were asked in. */
export function Receipt({ receipt: first, linkId }: { receipt: ReceiptShape; linkId: string }) {
  const [receipt, setReceipt] = useState(first);
  return (
    <LanguageContext value={LANGUAGES[receipt.language]}>
      <div lang={receipt.language}>
        <VisitorFrame visited={receipt}>
          <Standing receipt={receipt} />
          <Messages receipt={receipt} />
          {receipt.state !== 'withdrawn' && receipt.state !== 'declined' && (
            <Suspense>
              <AnswerBack linkId={linkId} isAsked={receipt.state === 'asked_back'} onSent={setReceipt} />
            </Suspense>
          )}
          {receipt.files.length > 0 && <Files names={receipt.files} />}
          {receipt.canWithdraw && <Withdraw linkId={linkId} onDone={setReceipt} />}
        </VisitorFrame>
      </div>
    </LanguageContext>
  );
}

function Standing({ receipt }: { receipt: ReceiptShape }) {
  const { t, dayWords, instantWords } = useLanguage();
  const reached = receipt.state === 'accepted' ? (receipt.progress ?? 'planned') : 'received';
  const at = STAGES.findIndex((stage) => stage.key === reached);
  return (
    <>
      <p className="text-muted">{t('Request {{number}}', { number: receipt.number })}</p>
      <h1 className="text-2xl mb-2 break-words">{receipt.title}</h1>
      <p className="mb-5">
        {receipt.wishOn
          ? t('Received {{when}}, wished for {{day}}.', { when: instantWords(receipt.receivedAt), day: dayWords(receipt.wishOn) })
          : t('Received {{when}}.', { when: instantWords(receipt.receivedAt) })}
      </p>
      {receipt.answerBy !== null && <p className="mb-5 -mt-3">{t('We answer by {{day}}.', { day: dayWords(receipt.answerBy) })}</p>}
      {receipt.expected.length > 0 && (
        <ul aria-label={t('Expected out')} className="card p-4 mb-4 grid gap-1">
          {receipt.expected.map(({ channelName, on, state }, index) => (
            <li key={index} className="flex flex-wrap gap-x-3">
              <span className="font-medium tabular">{dayWords(on)}</span>
              <span>{channelName}</span>
              <span className="text-muted ml-auto">{t(EXPECTED[state].words)}</span>
            </li>
          ))}
        </ul>
      )}
      {receipt.state === 'declined' ? (
        <div className="card p-4">
          <h2 className="text-lg">{t('We cannot take this on')}</h2>
          <p className="whitespace-pre-wrap break-words">{receipt.declineReason}</p>
        </div>
      ) : receipt.state === 'idea' ? (
        <p className="card p-4">{t('We keep this on our list of ideas, for later.')}</p>
      ) : receipt.state === 'withdrawn' ? (
        <p className="card p-4">{t('You have taken this back.')}</p>
      ) : (
        <>
          {receipt.isMerged && (
            <p className="card p-4 mb-4">{t('It is looked at together with another request that asks for the same.')}</p>
          )}
          <ol className="card p-4 grid gap-3">
            {STAGES.map((stage, index) => (
              <li
                key={stage.key}
                className={`flex items-center gap-3 ${index > at ? 'text-muted' : ''}`}
                aria-current={index === at ? 'step' : undefined}
              >
                <span
                  aria-hidden
                  className={`size-4 rounded-full border-2 ${index <= at ? 'bg-pine border-pine' : 'border-line-strong'}`}
                />
                <span className={index === at ? 'font-semibold' : ''}>{t(stage.words)}</span>
              </li>
            ))}
          </ol>
        </>
      )}
    </>
  );
}

/** What was asked back and answered. */
function Messages({ receipt }: { receipt: ReceiptShape }) {
  const { t, instantWords } = useLanguage();
  if (receipt.messages.length === 0) return null;
  return (
    <ol aria-label={t('Questions and answers')} className="grid gap-3 mt-6">
      {receipt.messages.map(({ author, text, at }) => (
        <li key={at} className={`card p-4 ${author === 'agency' ? '' : 'ml-6 bg-sunk'}`}>
          <p className="text-muted text-[13px]">
            {author === 'agency' ? receipt.agencyName : t('You')}, {instantWords(at)}
          </p>
          <p className="whitespace-pre-wrap break-words">{text}</p>
        </li>
      ))}
    </ol>
  );
}

function Files({ names }: { names: readonly string[] }) {
  const { t } = useLanguage();
  return (
    <p className="mt-5 text-muted break-words">
      {t('Files that came with it')}: {names.join(', ')}
    </p>
  );
}

/** Takes the request back, asked once more. */
function Withdraw({ linkId, onDone }: { linkId: string; onDone: (receipt: ReceiptShape) => void }) {
  const { t } = useLanguage();
  const [isAsked, setIsAsked] = useState(false);
  const [failure, setFailure] = useState<string>();
  const withdraw = async () => {
    try {
      onDone(await call<ReceiptShape>(`/receipts/${linkId}/withdraw`, { method: 'POST' }));
    } catch (error) {
      setFailure(t(wordsOf(error)));
    }
  };
  return (
    <div className="mt-6">
      {failure && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {failure}
        </p>
      )}
      {isAsked ? (
        <p className="flex flex-wrap items-center gap-3">
          <span>{t('Take this request back?')}</span>
          <button
            type="button"
            className="min-h-11 px-4 rounded-md border border-rhubarb text-rhubarb font-medium"
            onClick={() => void withdraw()}
          >
            {t('Yes, take it back')}
          </button>
          <button type="button" className="min-h-11 text-pine underline" onClick={() => setIsAsked(false)}>
            {t('No, keep it')}
          </button>
        </p>
      ) : (
        <button type="button" className="min-h-11 text-pine underline" onClick={() => setIsAsked(true)}>
          {t('I do not need this any more')}
        </button>
      )}
    </div>
  );
}
