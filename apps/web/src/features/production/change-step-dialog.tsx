import { useQuery } from '@tanstack/react-query';
import { CHECKLIST_LIMIT, CHECKLIST_LINE_LIMIT, isByClient } from '@zesting/core';
import type { ChecklistBody, PathChangeBody, StepShape } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { skillsQuery } from '../../api/production';
import { call, wordsOf } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useDaysOff, useSession, useWrite } from '../../lib/queries';
import { Choice } from '../../ui/choice';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { PathMoves } from './path-moves';

type Doing = 'pin' | 'retime' | 'checklist' | 'add' | 'split' | 'leave_out';

const DOING: readonly (readonly [Doing, string])[] = [
  ['pin', 'Finish day'],
  ['retime', 'Days and hours'],
  ['checklist', 'Checklist'],
  ['add', 'Add a step'],
  ['split', 'Split'],
  ['leave_out', 'Leave out'],
];
const ACTIONS: Record<Doing, string> = {
  pin: 'Pin it',
  retime: 'Change it',
  checklist: 'Keep the checklist',
  add: 'Add it',
  split: 'Split it',
  leave_out: 'Leave it out',
};

const ADDED = [
  ['make', 'makes'],
  ['check', 'checks'],
  ['deliver', 'the client brings something'],
] as const;
type AddedKind = (typeof ADDED)[number][0];

/** What is typed for any of the ways to change a step. */
interface Draft {
  readonly finishOn: string;
  readonly title: string;
  readonly does: AddedKind;
  readonly skill: string;
  readonly place: 'before' | 'after' | 'beside';
  readonly days: string;
  readonly hours: string;
  /** one to a line, of the checklist as it was at this version */
  readonly lines: string;
  readonly version: number;
}

/** Which ways there are for a step: the client's is only given days, and what is begun stays. */
const waysOf = (step: StepShape): readonly (readonly [Doing, string])[] =>
  DOING.filter(
    ([doing]) =>
      ((doing !== 'split' && doing !== 'checklist') || !isByClient(step.kind)) &&
      (doing !== 'leave_out' || (step.optional && step.startedOn === null && step.kind !== 'sign_off')),
  );

const draftFor = (doing: Doing, step: StepShape): Draft => ({
  finishOn: step.pinnedFinishOn ?? '',
  title: doing === 'split' ? `${step.title}, second part` : '',
  does: 'make',
  skill: isByClient(step.kind) ? '' : step.skill,
  place: step.kind === 'sign_off' ? 'before' : 'after',
  days: String(doing === 'retime' ? step.spanDays : doing === 'split' ? Math.max(1, Math.floor(step.spanDays / 2)) : 1),
  lines: step.checklist.map(({ text }) => text).join('\n'),
  version: step.version,
  hours: String(doing === 'retime' ? step.effortMinutes / 60 : doing === 'split' ? Math.round(step.leftMinutes / 30) / 4 : 1),
});

/** The change that the fields say; undefined where they do not say one yet. */
function changeOf(doing: Doing, draft: Draft, step: StepShape): PathChangeBody | undefined {
  const { id: stepId, version } = step;
  const [spanDays, effortMinutes] = [Number(draft.days), Math.round(Number(draft.hours) * 60)];
  const isTimed =
    draft.days !== '' &&
    draft.hours !== '' &&
    Number.isInteger(spanDays) &&
    spanDays >= 1 &&
    spanDays <= 60 &&
    effortMinutes >= 0 &&
    effortMinutes <= 12_000;
  switch (doing) {
    case 'checklist':
      return undefined; // moves nothing: it is sent by itself
    case 'leave_out':
      return { kind: doing, stepId, version };
    case 'pin':
      if (draft.finishOn === (step.pinnedFinishOn ?? '')) return undefined;
      return { kind: doing, stepId, version, finishOn: draft.finishOn || null };
    case 'retime':
      if (!isTimed || (spanDays === step.spanDays && effortMinutes === step.effortMinutes)) return undefined;
      return { kind: doing, stepId, version, spanDays, effortMinutes };
    case 'add': {
      const { does, place } = draft;
      const skill = does === 'deliver' ? does : draft.skill;
      if (!isTimed || draft.title.trim() === '' || skill === '') return undefined;
      return { kind: doing, stepId, title: draft.title.trim(), does, skill, place, spanDays, effortMinutes };
    }
    case 'split':
      if (!isTimed || draft.title.trim() === '') return undefined;
      return {
        kind: doing,
        stepId,
        version,
        title: draft.title.trim(),
        place: draft.place === 'beside' ? 'beside' : 'after',
        spanDays,
        effortMinutes,
      };
  }
}

/** The lines of a checklist as they were typed; undefined where they are too many, or one is too long. */
function linesOf(typed: string): string[] | undefined {
  const lines = typed.split('\n').map((line) => line.trim());
  const said = [...new Set(lines)].filter((line) => line !== '');
  return said.length <= CHECKLIST_LIMIT && said.every((line) => line.length <= CHECKLIST_LINE_LIMIT) ? said : undefined;
}

/** What is missing, in words, where a change cannot be sent. */
function missingWords(doing: Doing, draft: Draft): string {
  if (doing === 'checklist') return `A checklist has ${CHECKLIST_LIMIT} lines at most, of ${CHECKLIST_LINE_LIMIT} characters each.`;
  if (doing === 'pin') return 'Choose a day, or take the one away that is pinned.';
  if ((doing === 'add' || doing === 'split') && draft.title.trim() === '') return 'A step needs a name.';
  if (doing === 'add' && draft.does !== 'deliver' && draft.skill === '') return 'Say which skill it takes.';
  if (doing === 'retime') return 'Say other days or hours: 1 to 60 whole days, 0 to 200 hours.';
  return 'Days are whole, 1 to 60; hours go from 0 to 200.';
}

/** Changes one step of a piece, with what moves told before anything is saved. */
export function ChangeStepDialog({
  pieceId,
  clientId,
  step,
  onClose,
}: {
  pieceId: string;
  clientId: string;
  step: StepShape;
  onClose: () => void;
}) {
  const ways = waysOf(step);
  const [doing, setDoing] = useState<Doing>('pin');
  const [draft, setDraft] = useState<Draft>(() => draftFor('pin', step));
  const [wrong, setWrong] = useState<string>();
  const change = changeOf(doing, draft, step);
  const send = useWrite((changes: readonly PathChangeBody[]) => call(`/pieces/${pieceId}/path`, { method: 'POST', body: { changes } }), {
    quiet: true,
  });
  const lines = linesOf(draft.lines);
  // the list that was looked at is the one that is changed, also where the step was asked for anew meanwhile
  const keep = useWrite((body: ChecklistBody) => call(`/steps/${step.id}/checklist`, { method: 'PUT', body, version: draft.version }), {
    quiet: true,
  });
  const put = (part: Partial<Draft>) => {
    setDraft({ ...draft, ...part });
    setWrong(undefined);
  };
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    const then = {
      onSuccess: () => {
        toast(doneWords(doing, draft, step));
        onClose();
      },
      onError: (problem: Error) => setWrong(wordsOf(problem)),
    };
    if (doing === 'checklist' && lines) return keep.mutate({ lines }, then);
    if (!change) return setWrong(missingWords(doing, draft));
    send.mutate([change], then);
  };
  const action = doing === 'pin' && draft.finishOn === '' && step.pinnedFinishOn ? 'Take the pin away' : ACTIONS[doing];
  return (
    <FormDialog
      form={{ onSubmit, wrong, busy: send.isPending || keep.isPending }}
      onClose={onClose}
      title={`Change “${step.title}”`}
      action={action}
      look={doing === 'leave_out' ? 'danger' : 'main'}
      leave="Leave as it is"
      {...(doing === 'checklist' ? { wide: true } : { aside: <PathMoves pieceId={pieceId} changes={change ? [change] : []} /> })}
    >
      <div className="mb-3.5">
        <Choice
          label="What is changed"
          value={doing}
          options={ways}
          onChange={(next) => {
            setDoing(next);
            setDraft(draftFor(next, step));
            setWrong(undefined);
          }}
        />
      </div>
      {doing === 'pin' && <PinFields clientId={clientId} step={step} draft={draft} put={put} />}
      {(doing === 'add' || doing === 'split') && <NewStepFields isSplit={doing === 'split'} step={step} draft={draft} put={put} />}
      {(doing === 'retime' || doing === 'add' || doing === 'split') && (
        <TimeFields
          doing={doing}
          isClient={doing === 'retime' ? isByClient(step.kind) : doing === 'add' && draft.does === 'deliver'}
          draft={draft}
          put={put}
        />
      )}
      {doing === 'checklist' && (
        <Field
          label="What is looked at before it is handed in"
          help="A line each, on this piece alone. What is ticked stays ticked where its line stays."
        >
          {(control) => (
            <textarea {...control} className="field" rows={8} value={draft.lines} onChange={({ target }) => put({ lines: target.value })} />
          )}
        </Field>
      )}
      {doing === 'leave_out' && (
        <p className="mb-3.5">
          “{step.title}” is taken out of the path, and what waited for it waits for what comes before. It can be brought back.
        </p>
      )}
    </FormDialog>
  );
}

interface FieldsProps {
  readonly draft: Draft;
  readonly put: (part: Partial<Draft>) => void;
}

function PinFields({ clientId, step, draft, put }: FieldsProps & { clientId: string; step: StepShape }) {
  const { todayOn } = useSession();
  const off = useDaysOff(isByClient(step.kind) ? { clientId } : step.doerId ? { personId: step.doerId } : {});
  const marks = [
    { on: step.earliestFinishOn, words: 'Earliest end that the path allows' },
    ...(step.latestFinishOn && step.pinnedFinishOn === null ? [{ on: step.latestFinishOn, words: 'Finish by, as it is planned' }] : []),
  ];
  return (
    <DayField
      label="To be finished on"
      help="A pinned day stays when the rest is planned anew. What comes before it is planned to it."
      todayOn={todayOn}
      min={todayOn}
      off={off}
      marks={marks}
      value={draft.finishOn}
      onChange={(finishOn) => put({ finishOn })}
    />
  );
}

/** Days and hours; of what the client does, days alone. */
function TimeFields({ doing, isClient, draft, put }: FieldsProps & { doing: Doing; isClient: boolean }) {
  return (
    <div className="grid grid-cols-2 gap-x-3">
      <Field label={doing === 'split' ? 'Its working days' : 'Working days'} required>
        {(control) => (
          <input
            {...control}
            type="number"
            min={1}
            max={60}
            className="field"
            value={draft.days}
            onChange={({ target }) => put({ days: target.value })}
          />
        )}
      </Field>
      {!isClient && (
        <Field label={doing === 'split' ? 'Its hours' : 'Hours of work'} required>
          {(control) => (
            <input
              {...control}
              type="number"
              min={0}
              max={200}
              step="any"
              className="field"
              value={draft.hours}
              onChange={({ target }) => put({ hours: target.value })}
            />
          )}
        </Field>
      )}
    </div>
  );
}

/** A step that comes in: what it is, and where it stands. */
function NewStepFields({ isSplit, step, draft, put }: FieldsProps & { isSplit: boolean; step: StepShape }) {
  const { data: skills = [] } = useQuery({ ...skillsQuery, enabled: !isSplit });
  const places = (['before', 'after', 'beside'] as const).filter((place) =>
    isSplit ? place !== 'before' : step.kind === 'sign_off' ? place === 'before' : place !== 'before' || step.startedOn === null,
  );
  const words = {
    before: `before “${step.title}”`,
    after: isSplit ? 'after the first part' : `after “${step.title}”`,
    beside: 'at the same time',
  };
  return (
    <>
      <Field label={isSplit ? 'Name of the second part' : 'Name of the new step'} required>
        {(control) => (
          <input
            {...control}
            className="field"
            maxLength={60}
            value={draft.title}
            onChange={({ target }) => put({ title: target.value })}
          />
        )}
      </Field>
      {!isSplit && (
        <div className="grid grid-cols-2 gap-x-3">
          <Field label="What it does">
            {(control) => (
              <select
                {...control}
                className="field"
                value={draft.does}
                onChange={({ target }) => put({ does: ADDED.find(([kind]) => kind === target.value)?.[0] ?? 'make' })}
              >
                {ADDED.map(([kind, words]) => (
                  <option key={kind} value={kind}>
                    {words}
                  </option>
                ))}
              </select>
            )}
          </Field>
          {draft.does !== 'deliver' && (
            <Field label="Skill" required>
              {(control) => (
                <select {...control} className="field" value={draft.skill} onChange={({ target }) => put({ skill: target.value })}>
                  {!skills.includes(draft.skill) && <option value="">Choose</option>}
                  {skills.map((skill) => (
                    <option key={skill} value={skill}>
                      {skill}
                    </option>
                  ))}
                </select>
              )}
            </Field>
          )}
        </div>
      )}
      <Field label="Where it stands">
        {(control) => (
          <select
            {...control}
            className="field"
            value={draft.place}
            onChange={({ target }) => put({ place: places.find((place) => place === target.value) ?? 'after' })}
          >
            {places.map((place) => (
              <option key={place} value={place}>
                {words[place]}
              </option>
            ))}
          </select>
        )}
      </Field>
    </>
  );
}

function doneWords(doing: Doing, { finishOn, title }: Draft, step: StepShape): string {
  if (doing === 'pin')
    return finishOn ? `“${step.title}” is to be finished on ${dayWords(finishOn)}.` : `“${step.title}” is not pinned any more.`;
  if (doing === 'checklist') return `“${step.title}” has its checklist.`;
  if (doing === 'leave_out') return `“${step.title}” is left out.`;
  if (doing === 'retime') return `“${step.title}” has other days and hours.`;
  return `“${title.trim()}” is on the path.`;
}
