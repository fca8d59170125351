import { useSuspenseQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { roomViewQuery } from '../../api/clients';
import { RoomContent } from '../../room/room';

/** A contact's room as they see it, to look at only. */
export function RoomViewPage() {
  const { clientId = '', contactId = '' } = useParams();
  const { data: room } = useSuspenseQuery(roomViewQuery(clientId, contactId));
  return (
    <div className="max-w-3xl mx-auto">
      <p role="note" className="rounded-md bg-lake-soft text-lake px-3 py-2 mb-4">
        This is the room of {room.contactName}, {room.clientName}, as they see it. Only they can decide there: their link goes to them by
        mail. What they say by telephone is recorded on the sign-off page.
      </p>
      <RoomContent room={{ ...room, isView: true }} onDecided={() => undefined} />
    </div>
  );
}
