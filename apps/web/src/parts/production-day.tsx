import { useQuery } from '@tanstack/react-query';
import type { ProductionDayBody, ProductionDayShape } from '@zesting/contract';
import { toast } from 'sonner';
import { agencyQuery } from '../api/agency';
import { productionDayQuery } from '../api/plan';
import { call } from '../lib/api';
import { count, dayWords } from '../lib/format';
import { useWrite } from '../lib/queries';
import { Button } from '../ui/button';
import { Tag } from '../ui/tags';

interface ProductionDayProps {
  readonly markerId: string;
  /** moves the day itself */
  readonly onMove: (on: string) => void;
}

/** What is made together on a production day: how much it holds, which pieces, what stands in its way, and where it could be made up for. */
export function ProductionDay({ markerId, onMove }: ProductionDayProps) {
  const { data: day } = useQuery(productionDayQuery(markerId));
  const { data: agency } = useQuery(agencyQuery);
  const put = useWrite((body: ProductionDayBody) =>
    call<ProductionDayShape>(`/markers/${markerId}/production`, { method: 'PUT', body, version: day?.version ?? 0 }),
  );
  if (!day) return null;
  const chosen = day.pieces.filter(({ isChosen }) => isChosen).map(({ pieceId }) => pieceId);
  const change = (part: Partial<ProductionDayBody>) =>
    put.mutate({ capacity: day.capacity, skill: day.skill, place: day.place, pieceIds: chosen, ...part });
  const isBlocked = day.blockedBy.length > 0 || day.isDayOff;
  return (
    <section aria-labelledby="production" className="border-t border-line pt-3 mb-3 text-[13px]">
      <h3 id="production" className="text-base mb-1 flex items-center gap-2">
        Made on it
        <span className="text-muted font-normal font-sans text-[13px]">
          {chosen.length} of {day.capacity}
        </span>
        {day.shortage > 0 && <Tag tone="rhubarb">{count(day.shortage, 'piece')} short</Tag>}
      </h3>
      {isBlocked && (
        <div role="status" className="rounded-md bg-rhubarb-soft text-rhubarb px-3 py-2 mb-2">
          <p className="font-medium">
            {day.isDayOff ? 'The agency does not work on this day.' : `${day.blockedBy.join(', ')} stands in its way.`}
          </p>
          {day.makeUpOn ? (
            <Button
              className="mt-1.5"
              onClick={() => {
                onMove(day.makeUpOn ?? '');
                toast(`${dayWords(day.makeUpOn ?? '')} stands in the dialog: change it to keep it.`);
              }}
            >
              Make it up on {dayWords(day.makeUpOn)}
            </Button>
          ) : (
            <p>No day that is free comes in time for what is made on it.</p>
          )}
        </div>
      )}
      <div className="grid grid-cols-3 gap-2 mb-2">
        <label>
          <span className="block font-medium">Holds</span>
          <input
            className="field tabular"
            inputMode="numeric"
            key={`capacity ${day.version}`}
            defaultValue={day.capacity}
            disabled={put.isPending}
            onBlur={(event) => {
              const capacity = Math.min(100, Math.max(1, Number(event.target.value.replaceAll(/\D/g, '')) || day.capacity));
              event.target.value = String(capacity);
              if (capacity !== day.capacity) change({ capacity });
            }}
          />
        </label>
        <label>
          <span className="block font-medium">Whose work</span>
          <select
            className="field"
            disabled={put.isPending}
            value={day.skill ?? ''}
            onChange={(event) => change({ skill: event.target.value || null })}
          >
            <option value="">Any</option>
            {agency?.skills.map(({ name }) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="block font-medium">Where</span>
          <input
            className="field"
            maxLength={200}
            key={`place ${day.version}`}
            defaultValue={day.place}
            disabled={put.isPending}
            onBlur={(event) => {
              if (event.target.value.trim() !== day.place) change({ place: event.target.value });
            }}
          />
        </label>
      </div>
      {day.pieces.length === 0 && <p className="text-muted">No piece of this client waits to be made by {day.skill ?? 'anybody'}.</p>}
      <ul className="max-h-48 overflow-auto">
        {day.pieces.map((piece) => (
          <li key={piece.pieceId}>
            <label className="flex items-center gap-2 min-h-7 border-t border-line">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                disabled={put.isPending}
                checked={piece.isChosen}
                onChange={(event) =>
                  change({ pieceIds: event.target.checked ? [...chosen, piece.pieceId] : chosen.filter((id) => id !== piece.pieceId) })
                }
              />
              <span className="flex-1 min-w-0 truncate">{piece.title}</span>
              <span className="text-muted whitespace-nowrap">
                {piece.formatName}
                {piece.needBy && `, by ${dayWords(piece.needBy)}`}
              </span>
            </label>
          </li>
        ))}
      </ul>
    </section>
  );
}
