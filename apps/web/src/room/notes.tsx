import type { RoomPieceShape, RoomThreadShape } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../lib/api';
import { MarkNumber } from '../ui/places';
import type { ShownRoom } from './room-piece';

/** What the agency wrote to the client beside this version, each to be answered. */
export function Notes({ piece, room, onSaid }: { piece: RoomPieceShape; room: ShownRoom; onSaid: () => void }) {
  if (piece.notes.length === 0) return null;
  return (
    <section aria-label="What we say to it" className="mt-3 rounded-md bg-lake-soft px-3 py-2">
      <p className="font-medium">What we say to it</p>
      <ul className="grid gap-2 mt-1">
        {piece.notes.map((note, index) => (
          <li key={note.id} className="break-words">
            <p className="text-[13px] flex flex-wrap items-center gap-x-2">
              <MarkNumber mark={{ id: note.id, number: index + 1, isDone: false }} />
              <span className="font-medium">{note.authorName}</span>
              {note.where && <span className="text-muted">at {note.where}</span>}
            </p>
            <p className="whitespace-pre-wrap">{note.text}</p>
            {note.answer && <p className="text-[13px]">{note.answer}</p>}
            <Replies thread={note} />
            {!room.isView && <AnswerNote note={note} contactId={room.contactId} onSaid={onSaid} />}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was said to a remark. */
export function Replies({ thread }: { thread: RoomThreadShape }) {
  if (thread.replies.length === 0) return null;
  return (
    <ul>
      {thread.replies.map((reply, index) => (
        <li key={index} className="text-[13px] pl-3 border-l-4 border-line-strong mt-1 break-words whitespace-pre-wrap">
          <strong>{reply.authorName}</strong> {reply.text}
        </li>
      ))}
    </ul>
  );
}

function AnswerNote({ note, contactId, onSaid }: { note: RoomThreadShape; contactId: string; onSaid: () => void }) {
  const [text, setText] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string>();
  if (text === null)
    return (
      <button type="button" className="text-pine underline min-h-11 sm:min-h-8 no-print" onClick={() => setText('')}>
        Answer
      </button>
    );
  const send = async () => {
    if (text.trim() === '') return setError('Write something first.');
    setBusy(true);
    setError(undefined);
    try {
      await call(`/room/${contactId}/remarks/${note.id}/replies`, { method: 'POST', body: { text: text.trim() } });
      setText(null);
      onSaid();
    } catch (problem) {
      setError(wordsOf(problem));
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="mt-1">
      <textarea
        aria-label={`Answer to: ${note.text}`}
        className="field"
        rows={2}
        maxLength={2000}
        value={text}
        onChange={({ target }) => setText(target.value)}
      />
      {error && (
        <p role="alert" className="text-rhubarb text-[13px] font-medium">
          {error}
        </p>
      )}
      <button type="button" disabled={busy} className="text-pine underline min-h-11 sm:min-h-8" onClick={() => void send()}>
        Send the answer
      </button>
    </div>
  );
}
