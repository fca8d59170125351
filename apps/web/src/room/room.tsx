import type { RoomPacketShape } from '@zesting/contract';
import { count, dayWords } from '../lib/format';
import { buttonClass } from '../ui/button';
import { Tag } from '../ui/tags';
import { Deliveries } from './deliveries';
import { Knowledge } from './knowledge';
import { Ahead } from './ahead';
import { VisitorFrame } from '../ui/visitor-frame';
import { RoomPiece, type ShownRoom } from './room-piece';

/** The client's room: what waits for this contact's word first, what was decided after it. */
export function Room({ room, onDecided }: { room: ShownRoom; onDecided: () => void }) {
  return (
    <VisitorFrame visited={room}>
      <RoomContent room={room} onDecided={onDecided} />
    </VisitorFrame>
  );
}

/** What stands in a room, without the frame around it. */
export function RoomContent({ room, onDecided }: { room: ShownRoom; onDecided: () => void }) {
  const open = room.packets.filter((packet) => !packet.isClosed);
  const closed = room.packets.filter((packet) => packet.isClosed);
  const waiting = open
    .flatMap((packet) => packet.pieces)
    .filter((piece) => piece.outcome === null && piece.mine === null && piece.isAsked).length;
  const unanswered = room.interviews.flatMap(({ questions }) => questions).filter(({ answer }) => answer === '').length;
  const awaited = room.deliveries.filter(({ broughtAt }) => broughtAt === null).length;
  return (
    <>
      <h1 className="text-2xl">Hello {room.contactName.split(' ')[0]}</h1>
      <p className="text-muted mb-5" role="status">
        {waitingWords(waiting, unanswered, awaited)}
      </p>
      {open.map((packet) => (
        <Packet key={packet.id} packet={packet} room={room} onDecided={onDecided} />
      ))}
      <Deliveries deliveries={room.deliveries} contactId={room.contactId} isView={room.isView ?? false} onBrought={onDecided} />
      <Knowledge interviews={room.interviews} contactId={room.contactId} isView={room.isView ?? false} onAnswered={onDecided} />
      {room.askAddress && (
        <p className="mb-5 no-print">
          <a href={room.askAddress} className={buttonClass('plain', 'min-h-11 sm:min-h-8')}>
            Ask for something new
          </a>
        </p>
      )}
      {room.view && <Ahead view={room.view} zone={room.zone} />}
      {closed.length > 0 && (
        <details className="mt-6">
          <summary className="text-pine font-medium min-h-11 sm:min-h-8">Decided before ({closed.length})</summary>
          {closed.map((packet) => (
            <Packet key={packet.id} packet={packet} room={room} onDecided={onDecided} />
          ))}
        </details>
      )}
    </>
  );
}

/** What waits for the contact: pieces first, then what they are to bring, then questions. */
function waitingWords(pieces: number, questions: number, awaited: number): string {
  if (pieces + questions + awaited === 0) return 'Nothing waits for you. Thank you.';
  const asked = questions > 0 ? `${pieces > 0 ? 'We have' : 'We would like to ask you'} ${count(questions, 'question')}.` : '';
  return [
    pieces > 0 ? `${count(pieces, 'piece')} ${pieces === 1 ? 'waits' : 'wait'} for your word.` : '',
    awaited > 0 ? `We need ${count(awaited, 'thing')} from you.` : '',
    asked,
  ]
    .filter(Boolean)
    .join(' ');
}

function Packet({ packet, room, onDecided }: { packet: RoomPacketShape; room: ShownRoom; onDecided: () => void }) {
  return (
    <section aria-label={packet.title} className="mb-7">
      <header className="flex flex-wrap items-center gap-2 mb-2">
        <h2 className="text-lg">{packet.title}</h2>
        {!packet.isClosed && (
          <Tag tone={packet.isPastDue ? 'rhubarb' : 'lake'}>
            {packet.isPastDue ? `Was due ${dayWords(packet.dueOn)}` : `Answer by ${dayWords(packet.dueOn)}`}
          </Tag>
        )}
      </header>
      {packet.message && <p className="mb-3 whitespace-pre-wrap break-words">{packet.message}</p>}
      <div className="grid gap-4">
        {packet.pieces.map((piece) => (
          <RoomPiece key={piece.versionId} piece={piece} room={room} isLocked={packet.isClosed} onDecided={onDecided} />
        ))}
      </div>
    </section>
  );
}
