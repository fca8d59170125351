import { DndContext, pointerWithin, PointerSensor, useSensor, useSensors, type Active, type DragEndEvent } from '@dnd-kit/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { LoadPersonShape, LoadStepShape } from '@zesting/contract';
import { addDays, getDay, mondayOf, parseDay } from '@zesting/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { loadQuery } from '../../../api/production';
import { call, wordsOf } from '../../../lib/api';
import { useClients, useSession, useWrite } from '../../../lib/queries';
import { useSearch } from '../../../lib/use-search';
import { buttonClass } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../../ui/page';
import { DaysTurn } from '../days-turn';
import { ProductionNav } from '../../../parts/production-nav';
import { ClientMoney } from './client-money';
import { ClientHours } from './client-hours';
import { GiveHint } from './give-hint';
import { seenDay } from './load-case';
import { LoadGrid } from './load-grid';
import { LoadPanel } from './load-panel';

const SPANS = { '2': '2 weeks', '4': '4 weeks', '13': '3 months' } as const;
type Weeks = keyof typeof SPANS;

/** Everybody's days: how full they are, where more is due than there are hours, and what that comes from. Steps are given to others from here. */
export function LoadPage() {
  const { search, put } = useSearch();
  const { todayOn } = useSession();
  const { to } = useClients();
  const weeks = (Object.keys(SPANS) as Weeks[]).find((one) => one === search.get('weeks')) ?? '2';
  const fromOn = mondayOf(parseDay(search.get('from') ?? '') ?? getDay(todayOn));
  const toOn = addDays(fromOn, Number(weeks) * 7 - 1);
  const load = useQuery({ ...loadQuery(fromOn, toOn), placeholderData: keepPreviousData });
  const [held, setHeld] = useState<LoadStepShape>();
  const [over, setOver] = useState<string>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const give = useGive();
  if (load.isError) return <Failed message={wordsOf(load.error)} onRetry={() => void load.refetch()} />;
  if (!load.data) return <Loading />;
  const who = load.data.people.find(({ personId }) => personId === search.get('who'));
  const day = seenDay(search.get('day'), fromOn, toOn);
  const drop = ({ active, over: to }: DragEndEvent) => {
    setHeld(undefined);
    setOver(undefined);
    const step = heldIn(active);
    const person = load.data.people.find(({ personId }) => personId === to?.id);
    if (step && person && who && person.personId !== who.personId) give(step, who, person);
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setHeld(heldIn(active))}
      onDragOver={({ over: to }) => setOver(to ? String(to.id) : undefined)}
      onDragCancel={() => setHeld(undefined)}
      onDragEnd={drop}
    >
      <PageHead nav={<ProductionNav />} title="Production">
        <Choice
          label="How much is seen"
          value={weeks}
          options={Object.entries(SPANS) as [Weeks, string][]}
          onChange={(next) => put({ weeks: next === '2' ? null : next }, { replace: true })}
        />
        <Link to={to('/production/load/propose')} className={buttonClass()}>
          Propose doers
        </Link>
        <DaysTurn fromOn={fromOn} toOn={toOn} weeks={Number(weeks)} />
      </PageHead>
      {load.data.people.length === 0 ? (
        <Empty title="Nobody works here yet">People are added under Setup.</Empty>
      ) : (
        <div className={`grid gap-4 items-start ${who ? 'lg:grid-cols-[minmax(0,1fr)_22rem]' : ''}`}>
          <div className="min-w-0">
            <LoadGrid
              load={load.data}
              byWeeks={weeks === '13'}
              who={who?.personId}
              day={day}
              onChosen={(id, on) => put({ who: id, day: on }, { replace: true })}
            />
            <p className="text-muted text-[12.5px] mt-2 mb-4">
              The hours of each day that are predicted to be worked, of those that there are. + tells hours of work too much that are due by
              that day, whatever the order.
            </p>
            <ClientHours load={load.data} />
            <ClientMoney month={load.data.month} />
          </div>
          {who && <LoadPanel person={who} day={day} onClose={() => put({ who: null, day: null }, { replace: true })} />}
        </div>
      )}
      {held && <GiveHint step={held} person={load.data.people.find(({ personId }) => personId === over)} />}
    </DndContext>
  );
}

const heldIn = ({ data }: Active): LoadStepShape | undefined => (data.current as { step?: LoadStepShape } | undefined)?.step; // as the card gives it

/** Gives a step from one to another, with a way back. */
function useGive() {
  const send = useWrite(
    ({ step, personId, version }: { step: LoadStepShape; personId: string; version: number }) =>
      call(`/steps/${step.stepId}/doer`, { method: 'PUT', body: { personId }, version }),
    { quiet: true },
  );
  return (step: LoadStepShape, from: LoadPersonShape, to: LoadPersonShape) =>
    send.mutate(
      { step, personId: to.personId, version: step.version },
      {
        onSuccess: () =>
          toast(`${to.name} has “${step.title ?? ''}” now.`, {
            action: {
              label: 'Undo',
              onClick: () =>
                send.mutate(
                  { step, personId: from.personId, version: step.version + 1 },
                  { onError: (problem) => toast.error(wordsOf(problem)) },
                ),
            },
          }),
        onError: (problem) => toast.error(wordsOf(problem)),
      },
    );
}
