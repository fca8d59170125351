import { useQuery } from '@tanstack/react-query';
import type { ClientShape, MarkerShape, MonthFrameShape } from '@zesting/contract';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { monthFrameQuery } from '../../api/plan';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords, instantWords, monthWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { rhythmWords } from '../../lib/rhythm-words';
import { markerKindWords } from '../../lib/words';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Failed, Loading } from '../../ui/page';

interface StartDialogProps {
  readonly client: ClientShape;
  readonly month: string;
  readonly onClose: () => void;
}

/** The frame of a month, to be looked through before it is planned: weeks, rhythm, what comes again, themes, dates. */
export function StartDialog({ client, month, onClose }: StartDialogProps) {
  const frame = useQuery(monthFrameQuery(client.id, month));
  const path = `/clients/${client.id}/plan/start`;
  const start = useWrite(() => call(path, { method: 'POST', body: { month } }));
  const back = useWrite(() => call(`${path}?month=${month}`, { method: 'DELETE' }));
  const begin = () =>
    start.mutate(undefined, {
      onSuccess: () => {
        onClose();
        toast(`${frame.data?.name} is begun`, { action: { label: 'Undo', onClick: () => back.mutate(undefined) } });
      },
    });
  return (
    <Dialog
      open
      onClose={onClose}
      title={`${monthWords(month)} of ${client.name}`}
      description="What it is made of before a single idea."
      wide
    >
      {frame.isError && <Failed message={wordsOf(frame.error)} onRetry={() => void frame.refetch()} />}
      {frame.isPending && <Loading />}
      {frame.data && (
        <>
          <Frame frame={frame.data} />
          <div className="flex flex-wrap items-center justify-end gap-2 mt-4">
            <span className="text-muted text-[13px] mr-auto">
              {frame.data.name}
              {frame.data.startedAt && `, begun by ${frame.data.startedBy}, ${instantWords(frame.data.startedAt)}`}
            </span>
            {frame.data.startedAt ? (
              <Button disabled={back.isPending} onClick={() => back.mutate(undefined)}>
                Not begun after all
              </Button>
            ) : (
              <Button look="main" disabled={start.isPending} onClick={begin}>
                Start the month
              </Button>
            )}
          </div>
        </>
      )}
    </Dialog>
  );
}

function Frame({ frame }: { frame: MonthFrameShape }) {
  const { to } = useClients();
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2">
      <Part title="Weeks">
        <table className="w-full text-[13px]">
          <thead>
            <tr className="text-left text-muted">
              <th className="font-normal py-0.5">Week</th>
              <th className="font-normal">Days</th>
              <th className="font-normal">Theme</th>
              <th className="font-normal text-right">Slots</th>
            </tr>
          </thead>
          <tbody>
            {frame.weeks.map((week) => (
              <tr key={week.number} className="border-t border-line">
                <td className="py-0.5 tabular">{week.number}</td>
                <td className="tabular whitespace-nowrap">
                  {dayWords(week.fromOn)} – {Number(week.toOn.slice(8))}.
                </td>
                <td>{week.theme ?? <span className="text-muted">none</span>}</td>
                <td className="tabular text-right">
                  {week.filled} of {week.slots}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Part>
      <Part title="Rhythm">
        {frame.rules.length === 0 && (
          <p className="text-muted">
            None that reaches this month.{' '}
            <Link to={to('/plan/rhythm')} className="text-pine underline">
              Set it
            </Link>
          </p>
        )}
        <ul>
          {frame.rules.map((rule) => (
            <li key={rule.ruleId} className="flex gap-2 py-0.5">
              <span className="flex-1">
                {rhythmWords(rule.rule)} at {rule.at}, {rule.channelName}
              </span>
              <span className="text-muted tabular whitespace-nowrap">{count(rule.slots, 'slot')}</span>
            </li>
          ))}
        </ul>
      </Part>
      <Part title="Comes again">
        {frame.recurring.length === 0 && <p className="text-muted">No piece that comes again by rule.</p>}
        <ul>
          {frame.recurring.map((piece) => (
            <li key={piece.dutyId}>
              {piece.title}: <span className="text-muted">{piece.days.map((on) => dayWords(on)).join(', ')}</span>
            </li>
          ))}
        </ul>
      </Part>
      <Part title="Dates">
        {frame.markers.length + frame.carried.length === 0 && <p className="text-muted">Nothing stands in the month.</p>}
        <ul>
          {frame.carried.map((marker) => (
            <Date key={`${marker.id ?? ''}${marker.name}`} marker={marker} isCarried />
          ))}
          {frame.markers.map((marker) => (
            <Date key={`${marker.id ?? ''}${marker.name}${marker.startOn}`} marker={marker} isCarried={false} />
          ))}
        </ul>
      </Part>
    </div>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title} className="text-[13px] min-w-0">
    <h3 className="text-[15px] mb-1">{title}</h3>
    {children}
  </section>
);

const Date = ({ marker, isCarried }: { marker: MarkerShape; isCarried: boolean }) => (
  <li className="flex gap-2">
    <span className="tabular w-28 shrink-0">{isCarried ? `until ${dayWords(marker.endOn)}` : dayWords(marker.startOn)}</span>
    <span>
      {marker.name} <span className="text-muted">{markerKindWords(marker).toLowerCase()}</span>
    </span>
  </li>
);
