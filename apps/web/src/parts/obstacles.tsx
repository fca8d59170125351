import { useQuery } from '@tanstack/react-query';
import { isByClient } from '@zesting/core';
import type { ObstacleBody } from '@zesting/contract';
import { EditObstacleBody, type ObstacleOf, type ObstacleShape, type StepShape, type TeamMateShape } from '@zesting/contract';
import { TrafficCone } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { obstaclesQuery } from '../api/obstacles';
import { call, wordsOf } from '../lib/api';
import { instantWords } from '../lib/format';
import { ageWords, whoseWords } from '../lib/obstacle-words';
import { useDaysOff, useSession, useWrite } from '../lib/queries';
import { useBodyForm } from '../lib/use-body-form';
import { useOpened } from '../lib/use-opened';
import { Button } from '../ui/button';
import { Choice } from '../ui/choice';
import { DayField } from '../ui/day-field';
import { Field } from '../ui/field';
import { FieldGroup } from '../ui/field-group';
import { FormDialog } from '../ui/form-dialog';
import { TextField } from '../ui/text-field';

interface ObstaclesProps {
  readonly pieceId: string;
  readonly clientId: string;
  /** the step that they stand in the way of; absent: the whole piece */
  readonly step?: Pick<StepShape, 'id' | 'title' | 'doerId' | 'kind'>;
}

/** What stands in the way of a step or a piece, with whose it is and since when; and the ways to say something does, and that it is gone. */
export function Obstacles({ pieceId, clientId, step }: ObstaclesProps) {
  const { data } = useQuery(obstaclesQuery(pieceId));
  const { opened, open, close } = useOpened();
  const stepId = step?.id ?? null;
  const standing = data?.open.filter((one) => one.stepId === stepId) ?? [];
  const name = `obstacle-${stepId ?? 'piece'}`;
  return (
    <>
      {standing.length > 0 && (
        <ul className="my-1 grid gap-1.5" aria-label={step ? `In the way of ${step.title}` : 'In the way of the whole piece'}>
          {standing.map((obstacle) => (
            <ObstacleItem key={obstacle.id} obstacle={obstacle} clientId={clientId} team={data?.team ?? []} doerId={step?.doerId ?? null} />
          ))}
        </ul>
      )}
      <Button
        look="quiet"
        className={step ? '' : '-ml-3'}
        aria-label={step ? `Something is in the way of ${step.title}` : 'Something is in the way of the whole piece'}
        onClick={() => open(name)}
      >
        {step ? 'In the way…' : 'In the way of the whole piece…'}
      </Button>
      {opened === name && data && (
        <ObstacleDialog pieceId={pieceId} clientId={clientId} step={step} team={data.team} obstacle={undefined} onClose={close} />
      )}
    </>
  );
}

interface ItemProps {
  readonly obstacle: ObstacleShape;
  readonly clientId: string;
  readonly team: readonly TeamMateShape[];
  readonly doerId: string | null;
}

function ObstacleItem({ obstacle, clientId, team, doerId }: ItemProps) {
  const { personId, todayOn } = useSession();
  const { opened, open, close } = useOpened();
  const isMine = obstacle.personId === personId;
  const [edit, settle] = [`obstacle-edit-${obstacle.id}`, `obstacle-settle-${obstacle.id}`];
  const step =
    obstacle.stepId === null ? undefined : { id: obstacle.stepId, title: obstacle.stepTitle ?? '', doerId, kind: 'make' as const };
  return (
    <li className="rounded-md bg-rind-soft px-2.5 py-1.5 text-[13px]">
      <p className="font-medium break-words flex gap-1.5">
        <TrafficCone size={15} aria-hidden className="text-rind shrink-0 mt-0.5" />
        <span className="min-w-0">{obstacle.words}</span>
      </p>
      <p className={obstacle.untilOn !== null && obstacle.untilOn < todayOn ? 'text-rhubarb' : 'text-ink'}>
        Waits for {whoseWords(obstacle, isMine)}, {ageWords(obstacle, todayOn)}. Said by {obstacle.raisedBy}.
      </p>
      <div className="flex flex-wrap gap-x-1 -ml-3">
        <Button look="quiet" aria-label={`It is gone: ${obstacle.words}`} onClick={() => open(settle)}>
          It is gone…
        </Button>
        <Button look="quiet" aria-label={`Change: ${obstacle.words}`} onClick={() => open(edit)}>
          Change…
        </Button>
      </div>
      {opened === settle && <SettleDialog obstacle={obstacle} onClose={close} />}
      {opened === edit && (
        <ObstacleDialog pieceId={obstacle.pieceId} clientId={clientId} step={step} team={team} obstacle={obstacle} onClose={close} />
      )}
    </li>
  );
}

const WHOSE: readonly (readonly [ObstacleOf, string])[] = [
  ['person', 'One of us'],
  ['client', 'The client'],
  ['outside', 'Somebody outside'],
];

interface DialogProps {
  readonly pieceId: string;
  readonly clientId: string;
  readonly step: ObstaclesProps['step'];
  readonly team: readonly TeamMateShape[];
  readonly obstacle: ObstacleShape | undefined;
  readonly onClose: () => void;
}

/** Says what stands in the way, who must act, and until when it is expected to stand. */
function ObstacleDialog({ pieceId, clientId, step, team, obstacle, onClose }: DialogProps) {
  const { personId, todayOn } = useSession();
  const off = useDaysOff(step && isByClient(step.kind) ? { clientId } : step?.doerId ? { personId: step.doerId } : {});
  const save = useWrite(
    (body: EditObstacleBody) =>
      obstacle
        ? call(`/obstacles/${obstacle.id}`, { method: 'PATCH', body, version: obstacle.version })
        : call(`/pieces/${pieceId}/obstacles`, { method: 'POST', body: { ...body, stepId: step?.id ?? null } satisfies ObstacleBody }),
    { quiet: true },
  );
  const form = useBodyForm<EditObstacleBody>(
    EditObstacleBody,
    {
      words: obstacle?.words ?? '',
      whose: obstacle?.whose ?? 'client',
      personId: obstacle?.personId ?? null,
      untilOn: obstacle?.untilOn ?? null,
    },
    {
      send: async (body) => {
        await save.mutateAsync(body.whose === 'person' ? body : { ...body, personId: null });
        toast(obstacle ? 'Changed.' : `Said. ${step ? `“${step.title}”` : 'What is left of the piece'} is predicted anew.`);
        onClose();
      },
      words: { words: { isNotBlank: 'Say what stands in the way.' }, personId: { isUuid: 'Say who must act.' } },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={obstacle ? 'Change what stands in the way' : step ? `In the way of “${step.title}”` : 'In the way of the whole piece'}
      description="Whoever must act hears it, and those who manage the client. What waits is predicted anew."
      action={obstacle ? 'Change it' : 'Say it'}
    >
      <Field label="What stands in the way" required error={errorOf('words')}>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={2}
            maxLength={500}
            value={body.words}
            onChange={({ target }) => change({ words: target.value })}
          />
        )}
      </Field>
      <FieldGroup label="Who must act">
        {() => (
          <Choice
            label="Who must act"
            value={body.whose}
            options={WHOSE}
            onChange={(whose) => change({ whose, personId: whose === 'person' ? (team[0]?.personId ?? null) : null })}
          />
        )}
      </FieldGroup>
      {body.whose === 'person' && (
        <Field label="Who of us" required error={errorOf('personId')}>
          {(control) => (
            <select
              {...control}
              className="field"
              value={body.personId ?? ''}
              onChange={({ target }) => change({ personId: target.value || null })}
            >
              {obstacle?.personId && !team.some((mate) => mate.personId === obstacle.personId) && (
                <option value={obstacle.personId}>{obstacle.personName}</option>
              )}
              {team.map((mate) => (
                <option key={mate.personId} value={mate.personId}>
                  {mate.personId === personId ? `${mate.name} (you)` : mate.name}
                </option>
              ))}
            </select>
          )}
        </Field>
      )}
      <DayField
        label="Expected until"
        help="The last day on which it will stand. Left empty, it stands from day to day until somebody says that it is gone."
        todayOn={todayOn}
        min={todayOn}
        off={off}
        value={body.untilOn ?? ''}
        error={errorOf('untilOn')}
        onChange={(untilOn) => change({ untilOn: untilOn || null })}
      />
    </FormDialog>
  );
}

/** Says that it is gone, and how. */
function SettleDialog({ obstacle, onClose }: { obstacle: Pick<ObstacleShape, 'id' | 'words'>; onClose: () => void }) {
  const [words, setWords] = useState('');
  const [wrong, setWrong] = useState<string>();
  const settle = useWrite(() => call(`/obstacles/${obstacle.id}/settle`, { method: 'POST', body: { words } }), { quiet: true });
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    settle.mutate(undefined, {
      onSuccess: () => {
        toast(`“${obstacle.words}” is out of the way.`);
        onClose();
      },
      onError: (problem) => setWrong(wordsOf(problem)),
    });
  };
  return (
    <FormDialog
      form={{ onSubmit, wrong, busy: settle.isPending }}
      onClose={onClose}
      title="It is gone"
      description={`“${obstacle.words}”`}
      action="Out of the way"
    >
      <TextField label="How it went away" value={words} maxLength={500} onChange={setWords} />
    </FormDialog>
  );
}

/** What stood in the way of a piece and does not any more. */
export function SettledObstacles({ pieceId }: { pieceId: string }) {
  const { data } = useQuery(obstaclesQuery(pieceId));
  const settled = data?.settled ?? [];
  if (settled.length === 0) return null;
  return (
    <details className="border-t border-line pt-2 mt-2 text-[13px]">
      <summary className="cursor-pointer text-muted min-h-6">Was in the way: {settled.length}</summary>
      <ul className="grid gap-1 mt-1">
        {settled.map((one) => (
          <li key={one.id} className="break-words">
            {one.words}
            <span className="text-muted">
              {one.stepTitle !== null && ` · ${one.stepTitle}`} · gone {instantWords(one.settledAt ?? one.raisedAt)}
              {one.settledBy ? `, said by ${one.settledBy}` : ' with the step'}
              {one.settledWords && `: ${one.settledWords}`}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}
