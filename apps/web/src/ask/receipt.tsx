import type { ReceiptShape } from '@zesting/contract';
import { LanguageContext, LANGUAGES, useLanguage } from '../language/language';
import { VisitorFrame } from '../ui/visitor-frame';

const STAGES = [
  { key: 'received', words: 'We have it' },
  { key: 'planned', words: 'Accepted and planned' },
  { key: 'in_production', words: 'Being made' },
  { key: 'with_client', words: 'With you for sign-off' },
  { key: 'approved', words: 'Approved' },
  { key: 'published', words: 'Published' },
] as const;

/** How a request stands, for the one who sent it, in the language that they were asked in. */
export function Receipt({ receipt }: { receipt: ReceiptShape }) {
  return (
    <LanguageContext value={LANGUAGES[receipt.language]}>
      <div lang={receipt.language}>
        <Standing receipt={receipt} />
      </div>
    </LanguageContext>
  );
}

function Standing({ receipt }: { receipt: ReceiptShape }) {
  const { t, dayWords, instantWords } = useLanguage();
  const reached = receipt.state === 'accepted' ? (receipt.progress ?? 'planned') : 'received';
  const at = STAGES.findIndex((stage) => stage.key === reached);
  return (
    <VisitorFrame visited={receipt}>
      <p className="text-muted">{t('Request {{number}}', { number: receipt.number })}</p>
      <h1 className="text-2xl mb-2 break-words">{receipt.title}</h1>
      <p className="mb-5">
        {receipt.wishOn
          ? t('Received {{when}}, wished for {{day}}.', { when: instantWords(receipt.receivedAt), day: dayWords(receipt.wishOn) })
          : t('Received {{when}}.', { when: instantWords(receipt.receivedAt) })}
      </p>
      {receipt.state === 'declined' ? (
        <div className="card p-4">
          <h2 className="text-lg">{t('We cannot take this on')}</h2>
          <p className="whitespace-pre-wrap break-words">{receipt.declineReason}</p>
        </div>
      ) : (
        <ol className="card p-4 grid gap-3">
          {STAGES.map((stage, index) => (
            <li
              key={stage.key}
              className={`flex items-center gap-3 ${index > at ? 'text-muted' : ''}`}
              aria-current={index === at ? 'step' : undefined}
            >
              <span aria-hidden className={`size-4 rounded-full border-2 ${index <= at ? 'bg-pine border-pine' : 'border-line-strong'}`} />
              <span className={index === at ? 'font-semibold' : ''}>{t(stage.words)}</span>
            </li>
          ))}
        </ol>
      )}
    </VisitorFrame>
  );
}
