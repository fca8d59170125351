import { useDraggable } from '@dnd-kit/core';
import type { CalendarEntryShape } from '@zesting/contract';
import { Check, Pencil, Send, TriangleAlert, type LucideIcon } from 'lucide-react';
import { useNavigate } from 'react-router';
import { useClients, useSession } from '../../lib/queries';
import { PLACEMENT_WORDS } from '../../lib/words';
import { clientColour } from '../../ui/tags';
import { Thumbnail } from '../../ui/thumbnail';
import { colourOf, type Colouring } from './view';

const SIGNS: Record<string, LucideIcon> = { pencilled: Pencil, scheduled: Check, out: Send, missed: TriangleAlert };

interface EntryChipProps {
  readonly entry: CalendarEntryShape;
  readonly colouring: Colouring;
  /** with room for channel and state in words */
  readonly roomy?: boolean;
  readonly onOpen: (id: string) => void;
}

/** A placement on the calendar or in the tray: lifted by pointer or Space, opened by click or Enter. */
export function EntryChip({ entry, colouring, roomy = false, onOpen }: EntryChipProps) {
  const { clientOf, client: chosen, to } = useClients();
  const { role } = useSession();
  const client = clientOf(entry.clientId);
  const isFixed = entry.state === 'out' || role === 'staff' || role === 'freelance';
  const { setNodeRef, listeners, attributes, transform, isDragging } = useDraggable({ id: entry.id, disabled: isFixed });
  const Sign = SIGNS[entry.state];
  const { step, word } = colourOf(entry, client, colouring);
  const shown = colouring === 'client' ? (entry.at ?? entry.channelName) : [word, entry.at].filter(Boolean).join(' · ');
  const lead = [chosen ? '' : (client?.code ?? ''), shown].filter(Boolean).join(' ');
  const rest = [...(entry.at && shown !== entry.channelName ? [entry.channelName] : []), PLACEMENT_WORDS[entry.state] ?? ''];
  const words = `${lead} ${entry.pieceTitle}, ${rest.join(', ')}`;
  const line = entry.state === 'pencilled' || entry.state === 'undated' ? 'border-dashed' : 'border-solid';
  const tone = entry.state === 'missed' ? 'text-rhubarb' : '';
  const navigate = useNavigate();
  // what cannot be moved here opens its piece instead of the dialog
  const open = () => (isFixed ? void navigate(to(`/pieces/${entry.pieceId}`)) : onOpen(entry.id));
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...(isFixed ? {} : attributes)}
      {...(isFixed ? {} : listeners)}
      aria-label={words}
      title={words}
      onClick={open}
      onKeyDown={(event) => {
        // Enter is a click and opens the dialog; only the other keys lift and move
        if (event.key !== 'Enter') listeners?.['onKeyDown']?.(event);
      }}
      className={`relative block w-full pl-2.5 pr-1 py-px rounded-md border border-line-strong bg-card text-left text-[12px] leading-[17px] touch-none ${line} ${tone} ${isDragging ? 'z-30 shadow-xl opacity-90' : ''}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <span aria-hidden className="absolute left-0 inset-y-0 w-1 rounded-l-md" style={{ background: clientColour(step) }} />
      <span className="flex items-center gap-1.5">
        {!chosen && <span className="font-semibold truncate">{client?.code} </span>}
        <span className="tabular text-muted truncate flex-1">{shown} </span>
        {Sign && <Sign size={12} aria-hidden className="shrink-0" />}
      </span>
      <span className="flex gap-1.5">
        {entry.pictureId && <Thumbnail pictureId={entry.pictureId} size={roomy ? 64 : 44} />}
        <span className="min-w-0">
          <span className={roomy || entry.pictureId ? 'block line-clamp-2' : 'block truncate'}>{entry.pieceTitle} </span>
          {roomy && entry.at && (
            <span className="block truncate text-muted">
              {entry.channelName}, {PLACEMENT_WORDS[entry.state]}
            </span>
          )}
        </span>
      </span>
    </button>
  );
}
