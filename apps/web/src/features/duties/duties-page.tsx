import { useQuery } from '@tanstack/react-query';
import type { DutyShape } from '@zesting/contract';
import { Plus } from 'lucide-react';
import { dutiesQuery } from '../../api/duties';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords, minutesWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { rhythmWords } from '../../lib/rhythm-words';
import { useOpened } from '../../lib/use-opened';
import { PlanNav } from '../../parts/plan-nav';
import { Button } from '../../ui/button';
import { FormDialog } from '../../ui/form-dialog';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode, Tag } from '../../ui/tags';
import { DutyDays } from './duty-days';
import { DutyDialog } from './duty-dialog';

/** Work that is no step of a piece, and pieces that come again: whose, how often, and what was missed. */
export function DutiesPage() {
  const { client, query } = useClients();
  const duties = useQuery(dutiesQuery(query));
  const { opened, open, close } = useOpened();
  if (duties.isError) return <Failed message={wordsOf(duties.error)} onRetry={() => void duties.refetch()} />;
  if (!duties.data) return <Loading />;
  const rows = duties.data.duties;
  const minutes = rows.reduce((sum, duty) => sum + duty.minutesAMonth, 0);
  const missed = rows.reduce((sum, duty) => sum + duty.missed, 0);
  const [what = '', id] = (opened ?? '').split(':');
  const shown = rows.find((duty) => duty.id === id);
  return (
    <>
      <PageHead
        nav={<PlanNav />}
        title="Duties"
        note={
          rows.length === 0
            ? 'Work that is no step of a piece, and pieces that come again.'
            : `${count(rows.length, 'duty', 'duties')}, about ${minutesWords(minutes)} of work a month${missed > 0 ? `. ${missed} missed in the last three months` : ''}.`
        }
      >
        <Button look="main" onClick={() => open('duty')}>
          <Plus size={15} aria-hidden />
          Add a duty
        </Button>
      </PageHead>
      {rows.length === 0 ? (
        <Empty title={client ? `${client.name} has no duties yet` : 'There are no duties yet'}>
          Answering comments, looking at next week every Friday, renewing pictures each quarter, the letter of every month: say it once, and
          it stands on the right desk each time.
        </Empty>
      ) : (
        <ul className="card overflow-hidden" aria-label="Duties">
          {rows.map((duty) => (
            <DutyLine key={duty.id} duty={duty} onOpen={open} />
          ))}
        </ul>
      )}
      {duties.data.hidden > 0 && (
        <p className="text-muted mt-2">
          {count(duties.data.hidden, 'more duty', 'more duties')}: choose a client above to see all of theirs.
        </p>
      )}
      {(opened === 'duty' || (what === 'edit' && shown)) && <DutyDialog key={opened} duty={shown} client={client} onClose={close} />}
      {what === 'end' && shown && <EndDialog key={opened} duty={shown} onClose={close} />}
      {what === 'days' && shown && <DutyDays key={opened} duty={shown} onClose={close} />}
    </>
  );
}

/** Ends a duty, once that is meant. */
function EndDialog({ duty, onClose }: { duty: DutyShape; onClose: () => void }) {
  const end = useWrite(() => call(`/duties/${duty.id}`, { method: 'DELETE' }), { quiet: true });
  return (
    <FormDialog
      form={{
        onSubmit: (event) => {
          event.preventDefault();
          end.mutate(undefined, { onSuccess: onClose });
        },
        wrong: end.isError ? wordsOf(end.error) : undefined,
        busy: end.isPending,
      }}
      onClose={onClose}
      title={`End “${duty.title}”?`}
      description="It comes no more from today on. What was done and what was missed stays in the record."
      action="End it"
      look="danger"
    >
      {null}
    </FormDialog>
  );
}

const often = ({ rule, fromOn }: DutyShape): string => (rule === null ? `Once, on ${dayWords(fromOn)}` : rhythmWords(rule));

function DutyLine({ duty, onOpen }: { duty: DutyShape; onOpen: (name: string) => void }) {
  const { clientOf } = useClients();
  const client = clientOf(duty.clientId ?? '');
  return (
    <li className="border-t border-line first:border-t-0 px-4 py-2.5 grid gap-x-4 gap-y-1.5 md:grid-cols-[minmax(0,1fr)_13rem_auto] items-center">
      <div className="min-w-0">
        <p className="flex flex-wrap items-center gap-x-2">
          {client ? <ClientCode code={client.code} colour={client.colour} name={client.name} /> : <Tag>Agency</Tag>}
          <span className="font-medium break-words">{duty.title}</span>
          {duty.piece && <Tag tone="pine">makes a piece</Tag>}
        </p>
        <p className="text-muted text-[13px]">
          {often(duty)}
          {duty.leadDays > 0 && `, ${duty.piece ? 'made' : 'can be begun'} ${count(duty.leadDays, 'day')} before`} · {duty.leadName}
          {duty.secondName ? `, else ${duty.secondName}` : ''}
          {!duty.piece && duty.minutes > 0 && ` · ${minutesWords(duty.minutes)} each time, ${minutesWords(duty.minutesAMonth)} a month`}
          {duty.untilOn !== null && ` · until ${dayWords(duty.untilOn)}`}
        </p>
        {duty.uncoveredOn.length > 0 && (
          <p className="text-rind text-[13px] font-medium">
            Nobody is there on {count(duty.uncoveredOn.length, 'day')} of the next six weeks:{' '}
            {duty.uncoveredOn
              .slice(0, 4)
              .map((on) => dayWords(on))
              .join(', ')}
            {duty.uncoveredOn.length > 4 && ' …'}
          </p>
        )}
      </div>
      <div className="text-[13px] flex flex-wrap md:block gap-x-3">
        <p className="tabular">
          {duty.next === null ? (
            <span className="text-muted">none is to come</span>
          ) : duty.next.state === 'due' ? (
            <span className="font-medium">today</span>
          ) : (
            `${duty.next.state === 'open' ? 'by' : 'next'} ${dayWords(duty.next.dueOn)}`
          )}
        </p>
        {duty.missed > 0 && (
          <p>
            <button type="button" className="min-h-6 text-rhubarb font-medium underline" onClick={() => onOpen(`days:${duty.id}`)}>
              {duty.missed} missed
              <span className="sr-only"> of {duty.title}</span>
            </button>
          </p>
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        <Button aria-label={`Days of ${duty.title}`} onClick={() => onOpen(`days:${duty.id}`)}>
          Days
        </Button>
        <Button aria-label={`Change ${duty.title}`} onClick={() => onOpen(`edit:${duty.id}`)}>
          Change
        </Button>
        <Button aria-label={`End ${duty.title}`} onClick={() => onOpen(`end:${duty.id}`)}>
          End
        </Button>
      </div>
    </li>
  );
}
