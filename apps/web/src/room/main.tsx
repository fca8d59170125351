import '../styles/base.css';
import type { OpenedLinkShape, RoomShape } from '@zesting/contract';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { call } from '../lib/api';
import { useAnswer } from '../lib/use-answer';
import { VisitorNote } from '../ui/visitor-frame';
import { Room } from './room';

const [, token = ''] = window.location.pathname.split('/').filter(Boolean);

function RoomEntry() {
  const { answer, again } = useAnswer(async () => {
    const { linkId } = await call<OpenedLinkShape>('/room/open', { method: 'POST', body: { token } });
    return call<RoomShape>(`/room/${linkId}`);
  });
  if (answer.state === 'waiting') return <VisitorNote title="One moment…" />;
  if (answer.state === 'failed')
    return (
      <VisitorNote title="This page cannot be opened">
        <p role="alert">{answer.words}</p>
        <button type="button" className="text-pine underline min-h-11" onClick={again}>
          Try again
        </button>
      </VisitorNote>
    );
  const { askAddress, ...room } = answer.value;
  // on the form they are known: the token goes along behind the #, which is sent to nobody
  return <Room room={{ ...room, askAddress: askAddress && `${askAddress}#room=${token}` }} onDecided={again} />;
}

const root = document.getElementById('root');
if (!root) throw new Error('the page has no root');
createRoot(root).render(
  <StrictMode>
    <RoomEntry />
  </StrictMode>,
);
