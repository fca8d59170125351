import { GoalBody, type ClientShape, type GoalMadeShape, type GoalShape } from '@zesting/contract';
import { addDays, type Day } from '@zesting/core';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Choice } from '../../ui/choice';
import { DayField } from '../../ui/day-field';
import { FormDialog } from '../../ui/form-dialog';
import { OptionField } from '../../ui/option-field';
import { LinesField, TextField } from '../../ui/text-field';
import { TickList } from '../../ui/tick-list';
import { bodyOf } from './goal-card';
import { FigureField } from './figure-field';

interface GoalDialogProps {
  readonly client: ClientShape;
  /** what is changed; without it a goal is set */
  readonly goal: GoalShape | undefined;
  readonly todayOn: string;
  readonly onClose: () => void;
}

const YEAR_DAYS = 365;

/** A goal: what is measured, from where to where, by when, which pillars serve it, and by which steps. */
export function GoalDialog({ client, goal, todayOn, onClose }: GoalDialogProps) {
  const save = useWrite(
    (body: GoalBody) =>
      goal
        ? call(`/goals/${goal.id}`, { method: 'PUT', body, version: goal.version })
        : call<GoalMadeShape>(`/clients/${client.id}/goals`, { method: 'POST', body }),
    { quiet: true },
  );
  const form = useBodyForm<GoalBody>(
    GoalBody,
    goal
      ? bodyOf(goal)
      : {
          name: '',
          channelId: null,
          measure: 'reading',
          unit: 'followers',
          startValue: 0,
          target: 100,
          startOn: todayOn,
          byOn: addDays(todayOn as Day, YEAR_DAYS), // a day of the contract's
          pillarIds: [],
          steps: [],
        },
    {
      send: async (body) => {
        await save.mutateAsync(bodyOf(body));
        onClose();
      },
      words: { name: { isNotBlank: 'Say what it is about.' } },
    },
  );
  const { body, change, errorOf } = form;
  // a step that was typed anew elsewhere in the list stays ticked
  const isDone = (text: string) => (goal?.steps ?? []).some((step) => step.text === text && step.isDone);
  return (
    <FormDialog form={form} onClose={onClose} title={goal ? 'Change the goal' : 'Set a goal'} action={goal ? 'Change it' : 'Set it'}>
      <TextField label="Goal" required error={errorOf('name')} maxLength={120} value={body.name} onChange={(name) => change({ name })} />
      <div className="mb-3">
        <Choice
          label="How it is measured"
          value={body.measure}
          options={[
            ['reading', 'Figures that are read'],
            ['pieces', 'Pieces that go out'],
          ]}
          onChange={(measure) => change({ measure })}
        />
      </div>
      <div className="grid sm:grid-cols-2 gap-x-3">
        {body.measure === 'reading' && (
          <>
            <TextField
              label="What the figures count"
              error={errorOf('unit')}
              maxLength={40}
              value={body.unit}
              onChange={(unit) => change({ unit })}
            />
            <FigureField
              label="At the start"
              value={body.startValue}
              error={errorOf('startValue')}
              onChange={(startValue) => change({ startValue })}
            />
          </>
        )}
        <FigureField label="Target" value={body.target} error={errorOf('target')} onChange={(target) => change({ target })} />
        <OptionField
          label="Channel"
          none="All of the client"
          value={body.channelId}
          options={client.channels}
          error={errorOf('channelId')}
          onChange={(channelId) => change({ channelId })}
        />
        <DayField
          label="From"
          required
          value={body.startOn}
          todayOn={todayOn}
          error={errorOf('startOn')}
          onChange={(startOn) => change({ startOn })}
        />
        <DayField label="By" required value={body.byOn} todayOn={todayOn} error={errorOf('byOn')} onChange={(byOn) => change({ byOn })} />
      </div>
      <TickList
        label="Pillars that serve it"
        {...(body.measure === 'pieces' ? { help: 'Only their pieces are counted; without any, all are.' } : {})}
        error={errorOf('pillarIds')}
        options={client.pillars}
        chosen={body.pillarIds}
        onChange={(pillarIds) => change({ pillarIds })}
      />
      <LinesField
        label="Steps"
        help="One on each line; they are ticked on the goal."
        error={errorOf('steps')}
        rows={3}
        lines={body.steps.map(({ text }) => text)}
        onChange={(lines) => change({ steps: lines.map((text) => ({ text, isDone: isDone(text) })) })}
      />
    </FormDialog>
  );
}
