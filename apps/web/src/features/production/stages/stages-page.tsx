import {
  DndContext,
  pointerWithin,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import type { LineRowShape } from '@zesting/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { lineQuery } from '../../../api/production';
import { call, wordsOf } from '../../../lib/api';
import { count, dayWords } from '../../../lib/format';
import { useClients, useWrite } from '../../../lib/queries';
import { STAGE_WORDS } from '../../../lib/words';
import { SavedViews } from '../../../parts/saved-views';
import { Button } from '../../../ui/button';
import { Empty, Failed, Loading, PageHead } from '../../../ui/page';
import { ClientCode, DangerTag } from '../../../ui/tags';
import { PieceFilterRow, usePieceFilter } from '../piece-filter';
import { ProductionNav } from '../../../parts/production-nav';
import { atHand, movesOf, STAGE_COLUMNS, stageMove, type StageColumn, type StageMove } from './stage-move';

/** Open pieces by how far they are. A piece is moved by doing what that means; where it means nothing, it is said why. */
export function StagesPage() {
  const { query } = useClients();
  const filter = usePieceFilter();
  const line = useInfiniteQuery(lineQuery(query, filter.query));
  const [held, setHeld] = useState<LineRowShape>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const make = useMove();
  const rows = (line.data?.pages ?? []).flatMap((page) => page.rows);
  if (line.isError) return <Failed message={wordsOf(line.error)} onRetry={() => void line.refetch()} />;
  const [first] = line.data?.pages ?? [];
  if (!first) return <Loading />;
  const drop = ({ over }: DragEndEvent) => {
    const to = STAGE_COLUMNS.find((stage) => stage === over?.id);
    setHeld(undefined);
    if (held && to && to !== held.stage) make(held, stageMove(held, to));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setHeld(rows.find(({ id }) => id === active.id))}
      onDragCancel={() => setHeld(undefined)}
      onDragEnd={drop}
    >
      <PageHead nav={<ProductionNav />} title="Production" note={first.total === null ? undefined : count(first.total, 'open piece')}>
        <SavedViews page="production" />
      </PageHead>
      <PieceFilterRow filter={filter} leftOut={first.leftOut} />
      {rows.length === 0 ? (
        <Empty title={filter.isNarrowed ? 'No open piece is like that' : 'Nothing is open'}>
          A request that you accept becomes a piece.
        </Empty>
      ) : (
        <div className="grid gap-2 grid-cols-[repeat(6,minmax(180px,1fr))] overflow-x-auto items-start">
          {STAGE_COLUMNS.map((stage) => (
            <Column key={stage} stage={stage} rows={rows.filter((row) => row.stage === stage)} held={held} onMove={make} />
          ))}
        </div>
      )}
      {line.hasNextPage && (
        <Button look="quiet" className="w-full mt-2" onClick={() => void line.fetchNextPage()}>
          Show more: only the first {rows.length} are here
        </Button>
      )}
    </DndContext>
  );
}

/** Does what a move means, or says why it means nothing. */
function useMove(): (row: LineRowShape, move: StageMove) => void {
  const navigate = useNavigate();
  const { clientOf } = useClients();
  const act = useWrite((path: string) => call(path, { method: 'POST' }));
  return (row, move) => {
    if (move.kind === 'no') toast.error(`${row.title}: ${move.why}`);
    else if (move.kind === 'do') act.mutate(move.path, { onSuccess: () => toast(`${row.title}: ${move.words.toLowerCase()}`) });
    else void navigate(`${move.address}${move.address.includes('?') ? '&' : '?'}client=${clientOf(row.clientId)?.code ?? ''}`);
  };
}

interface ColumnProps {
  readonly stage: StageColumn;
  readonly rows: readonly LineRowShape[];
  readonly held: LineRowShape | undefined;
  readonly onMove: (row: LineRowShape, move: StageMove) => void;
}

function Column({ stage, rows, held, onMove }: ColumnProps) {
  const { setNodeRef, isOver } = useDroppable({ id: stage });
  const move = held && held.stage !== stage ? stageMove(held, stage) : undefined;
  return (
    <section
      ref={setNodeRef}
      aria-labelledby={`stage-${stage}`}
      className={`rounded-md border p-2 min-h-40 ${move ? (move.kind === 'no' ? 'border-line opacity-60' : 'border-pine bg-pine-soft') : 'border-line bg-sunk'} ${isOver ? 'outline-2 outline-lake' : ''}`}
    >
      <h2 id={`stage-${stage}`} className="flex items-baseline gap-2 text-[13px] font-sans tracking-normal mb-2">
        {STAGE_WORDS[stage]} <span className="text-muted font-normal tabular">{rows.length}</span>
      </h2>
      {isOver && move && <p className="text-[13px] text-lake mb-2">{move.kind === 'no' ? move.why : move.words}</p>}
      <ul className="grid gap-2">
        {rows.map((row) => (
          <Card key={row.id} row={row} onMove={onMove} />
        ))}
      </ul>
      {rows.length === 0 && <p className="text-muted text-[13px]">None.</p>}
    </section>
  );
}

function Card({ row, onMove }: { row: LineRowShape; onMove: ColumnProps['onMove'] }) {
  const { clientOf, to } = useClients();
  const client = clientOf(row.clientId);
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: row.id });
  const now = atHand(row);
  return (
    <li
      ref={setNodeRef}
      {...listeners}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      className={`card p-2 text-[13px] cursor-grab ${isDragging ? 'relative z-20 shadow-lg' : ''}`}
    >
      <p className="flex flex-wrap items-center gap-1.5">
        {client && <ClientCode code={client.code} colour={client.colour} />}
        <span className="tabular text-muted">{row.aimOn ? dayWords(row.aimOn) : 'no date'}</span>
        <DangerTag danger={row.danger === 'fine' ? null : row.danger} />
      </p>
      <Link to={to(`/pieces/${row.id}`)} className="font-medium flex items-center min-h-7 break-words no-underline hover:underline">
        {row.title}
      </Link>
      {now.map((step) => (
        <p key={step.id} className="text-muted">
          {step.title} · {step.doerName ?? <span className="text-rind font-medium">nobody</span>}
        </p>
      ))}
      <p className="flex flex-wrap gap-x-3">
        {movesOf(row).map((move) => (
          <button
            key={move.to}
            type="button"
            className="text-pine underline min-h-8"
            aria-label={`${move.words}: ${row.title}`}
            onClick={() => onMove(row, move)}
          >
            {move.words}
          </button>
        ))}
      </p>
    </li>
  );
}
