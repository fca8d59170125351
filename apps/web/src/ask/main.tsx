import '../styles/base.css';
import type { AskFormShape, OpenedLinkShape, ReceiptShape } from '@zesting/contract';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { LanguageContext, LANGUAGES, useLanguage } from '../language/language';
import { call, sayLink } from '../lib/api';
import { useAnswer } from '../lib/use-answer';
import { VisitorNote } from '../ui/visitor-frame';
import { AskForm } from './ask-form';
import { Receipt } from './receipt';
import { takeRoomToken } from './room-token';

const [, first = '', second = ''] = window.location.pathname.split('/').filter(Boolean);
const isReceipt = first === 'receipt';
const roomToken = isReceipt ? null : takeRoomToken(first);
if (!isReceipt && new URLSearchParams(window.location.search).has('embedded')) sayLink(first);

/** Swaps the link for its cookie, then asks for what it opens. */
async function open<T>(purpose: 'ask' | 'receipts', token: string): Promise<{ linkId: string; opened: T }> {
  const { linkId } = await call<OpenedLinkShape>(`/${purpose}/open`, { method: 'POST', body: { token } });
  return { linkId, opened: await call<T>(`/${purpose}/${linkId}`) };
}

function AskEntry() {
  const { answer, again } = useAnswer(() => open<AskFormShape>('ask', first));
  if (answer.state === 'waiting') return <Waiting />;
  if (answer.state === 'failed') return <Unopened words={answer.words} onRetry={again} />;
  return <AskForm form={answer.value.opened} roomToken={roomToken} />;
}

function ReceiptEntry() {
  const { answer, again } = useAnswer(() => open<ReceiptShape>('receipts', second));
  if (answer.state === 'waiting') return <Waiting />;
  if (answer.state === 'failed') return <Unopened words={answer.words} onRetry={again} />;
  return <Receipt receipt={answer.value.opened} linkId={answer.value.linkId} />;
}

function Waiting() {
  return <VisitorNote title={useLanguage().t('One moment…')} />;
}

function Unopened({ words, onRetry }: { words: string; onRetry: () => void }) {
  const { t } = useLanguage();
  return (
    <VisitorNote title={t('This page cannot be opened')}>
      <p role="alert">{t(words)}</p>
      <button type="button" className="text-pine underline min-h-11" onClick={onRetry}>
        {t('Try again')}
      </button>
    </VisitorNote>
  );
}

const root = document.getElementById('root');
if (!root) throw new Error('the page has no root');
// until it is known in which language the form is written, the visitor's own
const language = LANGUAGES[navigator.language.startsWith('de') ? 'de' : 'en'];
createRoot(root).render(
  <StrictMode>
    <LanguageContext value={language}>{isReceipt ? <ReceiptEntry /> : <AskEntry />}</LanguageContext>
  </StrictMode>,
);
