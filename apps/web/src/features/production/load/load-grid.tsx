import { useDroppable } from '@dnd-kit/core';
import type { LoadPersonShape, LoadShape } from '@zesting/contract';
import { getDay, type Day } from '@zesting/core';
import type { KeyboardEvent } from 'react';
import { dayWords, minutesWords, zoneWords } from '../../../lib/format';
import { cellsOf, fullness, shortHours, worstOf, type Cell } from './load-case';

interface GridProps {
  readonly load: LoadShape;
  readonly byWeeks: boolean;
  /** whose work is looked at, and of which day; null: all that is seen */
  readonly who: string | undefined;
  readonly day: Day | null;
  readonly onChosen: (personId: string, day: Day | null) => void;
}

const FILLS = ['', 'bg-pine-soft', 'bg-pine/30', 'bg-pine/45', 'bg-pine text-on-pine'] as const;

/** People by days. A name, and from it by the arrow keys each cell, opens what there is to do. */
export function LoadGrid({ load, byWeeks, who, day, onChosen }: GridProps) {
  const fromOn = getDay(load.fromOn);
  const [first] = load.people;
  const heads = first ? cellsOf(first, fromOn, byWeeks) : [];
  const tracks = `minmax(11.5rem,14rem) repeat(${heads.length}, minmax(1.6rem,1fr))`;
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const next = nextCell(event.currentTarget, event.target as HTMLElement, event.key);
    if (!next) return;
    event.preventDefault();
    next.focus();
  };
  return (
    <div className="card overflow-x-auto">
      <div role="grid" aria-label="Load" className="min-w-max lg:min-w-0 text-[12.5px]" onKeyDown={onKeyDown}>
        <div role="row" className="grid text-muted" style={{ gridTemplateColumns: tracks }}>
          <span role="columnheader" className="px-3 py-1">
            Person
          </span>
          {heads.map(({ fromOn: on }) => (
            <Head key={on} on={on} byWeeks={byWeeks} isToday={on === load.todayOn} />
          ))}
        </div>
        {load.people.map((person) => (
          <Row
            key={person.personId}
            person={person}
            cells={cellsOf(person, fromOn, byWeeks)}
            tracks={tracks}
            isChosen={person.personId === who}
            day={person.personId === who ? day : null}
            onChosen={(on) => onChosen(person.personId, on)}
          />
        ))}
      </div>
    </div>
  );
}

function Head({ on, byWeeks, isToday }: { on: Day; byWeeks: boolean; isToday: boolean }) {
  const [weekday = '', date = '', month = ''] = dayWords(on, on.slice(0, 4)).split(' ');
  return (
    <span
      role="columnheader"
      aria-label={byWeeks ? `Week of ${dayWords(on)}` : dayWords(on)}
      className={`text-center tabular leading-tight py-0.5 ${isToday ? 'text-rhubarb font-semibold' : ''}`}
    >
      {byWeeks ? month : weekday.slice(0, 1)}
      <br />
      {date}
    </span>
  );
}

interface RowProps {
  readonly person: LoadPersonShape;
  readonly cells: readonly Cell[];
  readonly tracks: string;
  readonly isChosen: boolean;
  readonly day: Day | null;
  readonly onChosen: (day: Day | null) => void;
}

function Row({ person, cells, tracks, isChosen, day, onChosen }: RowProps) {
  const { setNodeRef, isOver } = useDroppable({ id: person.personId });
  const worst = worstOf(person);
  return (
    <div
      ref={setNodeRef}
      role="row"
      className={`grid border-t border-line ${isOver ? 'outline-2 -outline-offset-2 outline-pine' : ''} ${isChosen ? 'bg-sunk' : ''}`}
      style={{ gridTemplateColumns: tracks }}
    >
      <div role="rowheader" className="px-3 py-1 min-w-0">
        <button
          type="button"
          data-cell
          className="font-medium truncate max-w-full block text-left hover:underline min-h-6"
          aria-pressed={isChosen && day === null}
          onClick={() => onChosen(null)}
        >
          {person.name}
        </button>
        {worst ? (
          <p className="text-rhubarb text-[12px] leading-tight font-medium whitespace-nowrap" title="Whatever the order">
            {shortHours(worst.overMinutes)} h too much by {dayWords(worst.dueOn)}
          </p>
        ) : (
          <p className="text-muted text-[12px] leading-tight truncate">
            {person.role === 'freelance' ? `freelance, ${zoneWords(person.zone)}` : person.role}
          </p>
        )}
      </div>
      {cells.map((cell) => (
        <GridCell
          key={cell.fromOn}
          name={person.name}
          cell={cell}
          isChosen={day !== null && day >= cell.fromOn && day <= cell.toOn}
          onChosen={() => onChosen(cell.fromOn)}
        />
      ))}
    </div>
  );
}

function GridCell({ name, cell, isChosen, onChosen }: { name: string; cell: Cell; isChosen: boolean; onChosen: () => void }) {
  const full = fullness(cell);
  const days = cell.fromOn === cell.toOn ? dayWords(cell.fromOn) : `${dayWords(cell.fromOn)} to ${dayWords(cell.toOn)}`;
  const said =
    full === null
      ? `${name}, ${days}: off`
      : `${name}, ${days}: ${minutesWords(cell.taken)} of ${minutesWords(cell.hours)}${cell.over > 0 ? `, ${minutesWords(cell.over)} too much due` : ''}`;
  return (
    <div role="gridcell" className="p-px">
      <button
        type="button"
        data-cell
        tabIndex={-1}
        title={said}
        className={`w-full h-full min-h-10 rounded-sm tabular leading-tight ${full === null ? 'off-day' : FILLS[full]} ${isChosen ? 'ring-2 ring-ink' : ''}`}
        onClick={onChosen}
      >
        <span className="sr-only">{said}</span>
        <span aria-hidden>{full !== null && cell.taken > 0 && shortHours(cell.taken)}</span>
        {cell.over > 0 && (
          <strong aria-hidden className="block w-fit mx-auto px-0.5 rounded-sm bg-card text-rhubarb">
            +{shortHours(cell.over)}
          </strong>
        )}
      </button>
    </div>
  );
}

/** The cell that an arrow key leads to from one of them. */
function nextCell(grid: HTMLElement, from: HTMLElement, key: string): HTMLElement | undefined {
  const row = from.closest('[role="row"]');
  if (!row || !['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End'].includes(key)) return undefined;
  const cellsIn = (of: Element) => [...of.querySelectorAll<HTMLElement>('[data-cell]')];
  const rows = [...grid.querySelectorAll('[role="row"]')].filter((one) => cellsIn(one).length > 0);
  const [own, at] = [cellsIn(row), rows.indexOf(row)];
  const index = own.indexOf(from);
  if (key === 'Home') return own[0];
  if (key === 'End') return own.at(-1);
  if (key === 'ArrowLeft') return own[index - 1];
  if (key === 'ArrowRight') return own[index + 1];
  const other = rows[at + (key === 'ArrowUp' ? -1 : 1)];
  return other && cellsIn(other)[index];
}
