import { useQuery } from '@tanstack/react-query';
import { DeclineRequestBody, type RequestRow } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { peopleQuery } from '../../api/people';
import { call, wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';
import { FormDialog } from '../../ui/form-dialog';
import { acceptanceOf } from './acceptance';
import { ReasonField } from './reason-field';

interface SeveralProps {
  /** the requests that are ticked */
  readonly rows: readonly RequestRow[];
  readonly onDone: () => void;
}

/** What became of several, one after the other: which were done, and what was said of the others. */
interface Outcome {
  readonly done: readonly RequestRow[];
  readonly failed: readonly string[];
}

/** A request that nothing can be made of until a route is chosen. */
class Unroutable extends Error {
  constructor() {
    super('Choose a route first: its form says none.');
  }
}

async function one(row: RequestRow, work: (row: RequestRow) => Promise<unknown>): Promise<string | null> {
  try {
    await work(row);
    return null;
  } catch (problem) {
    return `“${row.title}”: ${problem instanceof Unroutable ? problem.message : wordsOf(problem)}`;
  }
}

async function each(rows: readonly RequestRow[], work: (row: RequestRow) => Promise<unknown>): Promise<Outcome> {
  const done: RequestRow[] = [];
  const failed: string[] = [];
  for (const row of rows) {
    const said = await one(row, work);
    if (said === null) done.push(row);
    else failed.push(said);
  }
  return { done, failed };
}

/** What can be done with several requests at once: each by itself, so that one that cannot be keeps none of the others back. */
export function SeveralBar({ rows, onDone }: SeveralProps) {
  const { data: people } = useQuery(peopleQuery);
  const [isDeclining, setIsDeclining] = useState(false);
  const [failed, setFailed] = useState<readonly string[]>([]);
  const give = useWrite((ownerId: string) => each(rows, ({ id }) => call(`/requests/${id}/owner`, { method: 'PUT', body: { ownerId } })));
  const { clientOf } = useClients();
  const accept = useWrite(() => {
    const takeOn = (row: RequestRow) => {
      if (row.takes.routeId === undefined) return Promise.reject(new Unroutable());
      return call(`/requests/${row.id}/accept`, { method: 'POST', body: acceptanceOf(row, clientOf(row.clientId), '') });
    };
    return each(rows, takeOn);
  });
  const reopen = useWrite(async (again: readonly RequestRow[]) =>
    setFailed((await each(again, ({ id }) => call(`/requests/${id}/reopen`, { method: 'POST' }))).failed),
  );
  const managers = people?.filter(({ active, role }) => active && (role === 'lead' || role === 'manager')) ?? [];
  const end = ({ done, failed: wrong }: Outcome, words: string, undo?: () => void) => {
    setFailed(wrong);
    if (done.length > 0) toast(`${count(done.length, 'request')} ${words}`, undo ? { action: { label: 'Undo', onClick: undo } } : {});
    if (wrong.length === 0) onDone();
  };
  return (
    <section aria-label="Several requests" className="card px-3 py-2 mb-3">
      <div className="flex flex-wrap items-center gap-2">
        <strong>{rows.length === 0 ? 'Tick those that you mean' : `${count(rows.length, 'request')} ticked`}</strong>
        <label className="inline-flex items-center gap-2 ml-auto">
          Answered for by
          <select
            className="field w-auto min-h-8"
            value=""
            disabled={rows.length === 0 || give.isPending}
            onChange={(event) => give.mutate(event.target.value, { onSuccess: (outcome) => end(outcome, 'given') })}
          >
            <option value="">…</option>
            {managers.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <Button disabled={rows.length === 0} onClick={() => setIsDeclining(true)}>
          Decline…
        </Button>
        <Button
          look="main"
          disabled={rows.length === 0 || accept.isPending}
          onClick={() => accept.mutate(undefined, { onSuccess: (outcome) => end(outcome, 'accepted', () => reopen.mutate(outcome.done)) })}
        >
          Accept
        </Button>
        <Button look="quiet" onClick={onDone}>
          Not several
        </Button>
      </div>
      {failed.length > 0 && (
        <ul role="alert" className="text-rhubarb font-medium mt-2">
          {failed.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      {isDeclining && <DeclineSeveral rows={rows} onClose={() => setIsDeclining(false)} onEnd={end} />}
    </section>
  );
}

interface DeclineProps {
  readonly rows: readonly RequestRow[];
  readonly onClose: () => void;
  readonly onEnd: (outcome: Outcome, words: string, undo: () => void) => void;
}

function DeclineSeveral({ rows, onClose, onEnd }: DeclineProps) {
  const decline = useWrite(
    (body: DeclineRequestBody) => each(rows, ({ id }) => call(`/requests/${id}/decline`, { method: 'POST', body })),
    {
      quiet: true,
    },
  );
  const reopen = useWrite((again: readonly RequestRow[]) => each(again, ({ id }) => call(`/requests/${id}/reopen`, { method: 'POST' })));
  const form = useBodyForm<DeclineRequestBody>(
    DeclineRequestBody,
    { reason: '' },
    {
      send: async ({ reason }) => {
        const outcome = await decline.mutateAsync({ reason: reason.trim() });
        onClose();
        onEnd(outcome, 'declined', () => reopen.mutate(outcome.done));
      },
      words: { reason: { isNotBlank: 'Say why: those who asked read it.' } },
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`Decline ${count(rows.length, 'request')}`}
      description="Each who asked, and has an address, gets this by mail."
      action="Decline and send"
      look="danger"
      leave="Keep them open"
    >
      <ReasonField label="Reason for all" form={form} />
    </FormDialog>
  );
}
