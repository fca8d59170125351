import type { FreeSlotShape } from '@zesting/contract';
import { Link } from 'react-router';
import { count } from '../../lib/format';
import { useClients } from '../../lib/queries';

interface OpenSlotsProps {
  readonly slots: readonly FreeSlotShape[];
  /** so many find room in the day, beside what stands in it */
  readonly room: number;
}

/** Slots of a day in which nothing stands: each leads to what fits it; where there is no room, their number. By keyboard they are reached in Plan. */
export function OpenSlots({ slots, room }: OpenSlotsProps) {
  const { clientOf, client: chosen } = useClients();
  const pathTo = ({ clientId, on, ruleId }: FreeSlotShape) =>
    `/plan?client=${clientOf(clientId)?.code ?? ''}&month=${on.slice(0, 7)}&slot=${ruleId}@${on}`;
  const [first] = slots;
  if (!first) return null;
  if (slots.length > room)
    return (
      <Link
        to={slots.length === 1 || chosen ? pathTo(first) : '/plan'}
        tabIndex={-1}
        className="no-print block px-1 min-h-6 text-[12px] leading-6 text-muted no-underline hover:underline"
      >
        {count(slots.length, 'open slot')}
      </Link>
    );
  return (
    <ul className="grid grid-cols-[minmax(0,1fr)] gap-0.5 mt-0.5 no-print">
      {slots.map((slot) => (
        <li key={`${slot.ruleId}${slot.on}`}>
          <Link
            to={pathTo(slot)}
            tabIndex={-1}
            title={`Open: ${slot.at} ${slot.channelName}`}
            className="block truncate rounded-md border border-dashed border-line-strong px-2 text-[12px] leading-[20px] min-h-[22px] text-muted no-underline hover:bg-sunk"
          >
            {!chosen && <span className="font-semibold">{clientOf(slot.clientId)?.code} </span>}
            <span className="tabular">{slot.at}</span> {slot.channelName}
          </Link>
        </li>
      ))}
    </ul>
  );
}
