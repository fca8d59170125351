import { RhythmRuleBody, type ClientShape, type RhythmRuleShape, type RuleMadeShape } from '@zesting/contract';
import { readTimeOfDay } from '@zesting/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { tagSetsQuery } from '../../api/library';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { rhythmWords } from '../../lib/rhythm-words';
import { useBodyForm } from '../../lib/use-body-form';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { OptionField } from '../../ui/option-field';
import { PurposeField } from '../../ui/purpose-field';
import { PatternFields } from '../../ui/pattern-fields';
import { useNames } from './use-names';

interface RuleDialogProps {
  readonly client: ClientShape;
  /** the client's */
  readonly todayOn: string;
  /** what is changed; without it something is added */
  readonly rule: RhythmRuleShape | undefined;
  readonly onClose: () => void;
}

const bodyOf = ({
  channelId,
  rule,
  at,
  fromOn,
  untilOn,
  skipsHolidays,
  pillarId,
  formatId,
  purpose = null,
  fromStock = false,
  tagSetId = null,
}: RhythmRuleBody): RhythmRuleBody => ({
  channelId,
  rule,
  at,
  fromOn,
  untilOn,
  skipsHolidays,
  pillarId,
  formatId,
  purpose,
  fromStock,
  tagSetId,
});

/** One line of a rhythm: the days, the time, the channel, and what it wants there. */
export function RuleDialog({ client, todayOn, rule, onClose }: RuleDialogProps) {
  const names = useNames(client);
  const sets = useQuery(tagSetsQuery(client.id)).data;
  const { tagSets } = sets ?? { tagSets: [] };
  const save = useWrite(
    (body: RhythmRuleBody) =>
      rule
        ? call<RuleMadeShape>(`/rhythm/${rule.id}`, { method: 'PUT', body, version: rule.version })
        : call<RuleMadeShape>(`/clients/${client.id}/rhythm`, { method: 'POST', body }),
    { quiet: true },
  );
  const form = useBodyForm<RhythmRuleBody>(
    RhythmRuleBody,
    rule
      ? bodyOf(rule)
      : {
          channelId: client.channels[0]?.id ?? '',
          rule: 'FREQ=WEEKLY;BYDAY=TU',
          at: client.usualTime,
          fromOn: todayOn,
          untilOn: null,
          skipsHolidays: false,
          pillarId: null,
          formatId: null,
          purpose: null,
          fromStock: false,
          tagSetId: null,
        },
    {
      send: async (body) => {
        // a set that was put away since is none: so it is shown, and so it is kept
        const isGone = sets !== undefined && !sets.tagSets.some(({ id }) => id === body.tagSetId);
        await save.mutateAsync({ ...bodyOf(body), ...(isGone ? { tagSetId: null } : {}) });
        toast(`${rhythmWords(body.rule)} at ${body.at}`);
        onClose();
      },
      words: { at: { isTimeOfDay: 'This is no time. Try 9:30 or 17.' }, fromOn: { isDay: 'Say from which day on.' } },
    },
  );
  const { body, change, errorOf } = form;
  const [typedAt, setTypedAt] = useState(body.at);
  const hasBegun = rule !== undefined && rule.fromOn < todayOn;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={rule ? 'Change the rhythm' : 'Add to the rhythm'}
      description={
        hasBegun
          ? 'What was before today stays as it was; the change holds from today on.'
          : 'On which days something goes out, when, and where.'
      }
      action={rule ? 'Change it' : 'Add it'}
    >
      <PatternFields rule={body.rule} error={errorOf('rule')} onChange={(next) => change({ rule: next })} />
      <div className="grid sm:grid-cols-2 gap-x-3">
        <Field label="Channel" required error={errorOf('channelId')}>
          {(control) => (
            <select {...control} className="field" value={body.channelId} onChange={(event) => change({ channelId: event.target.value })}>
              {client.channels.map((channel) => (
                <option key={channel.id} value={channel.id}>
                  {channel.name}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Time" required error={errorOf('at')} help="By the client’s clock.">
          {(control) => (
            <input
              {...control}
              className="field tabular"
              value={typedAt}
              onChange={(event) => {
                setTypedAt(event.target.value);
                change({ at: readTimeOfDay(event.target.value) ?? event.target.value });
              }}
              onBlur={() => setTypedAt(body.at)}
            />
          )}
        </Field>
        <OptionField
          label="Pillar"
          none="Any"
          value={body.pillarId}
          options={client.pillars}
          error={errorOf('pillarId')}
          onChange={(pillarId) => change({ pillarId })}
        />
        <OptionField
          label="Format"
          none="Any"
          value={body.formatId}
          options={names.formats}
          error={errorOf('formatId')}
          onChange={(formatId) => change({ formatId })}
        />
        <PurposeField value={body.purpose} none="Anything" onChange={(purpose) => change({ purpose })} />
        <OptionField
          label="Begins with the tags of"
          none={tagSets.length === 0 ? 'No set: the client has none' : 'No set'}
          value={body.tagSetId ?? null}
          options={tagSets}
          error={errorOf('tagSetId')}
          onChange={(tagSetId) => change({ tagSetId })}
        />
        <DayField
          label={hasBegun ? 'Counted from' : 'From'}
          required
          value={body.fromOn}
          todayOn={todayOn}
          disabled={hasBegun}
          {...(hasBegun ? {} : { min: todayOn })}
          error={errorOf('fromOn')}
          onChange={(on) => change({ fromOn: on })}
        />
        <DayField
          label="Until"
          help="Empty: until it is changed."
          value={body.untilOn ?? ''}
          todayOn={todayOn}
          min={todayOn}
          error={errorOf('untilOn')}
          onChange={(on) => change({ untilOn: on || null })}
        />
      </div>
      <label className="flex items-center gap-2 min-h-8">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          checked={body.fromStock ?? false}
          onChange={({ target }) => change({ fromStock: target.checked })}
        />
        From the evergreen stock
      </label>
      <label className="flex items-center gap-2 min-h-8 mb-2">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          checked={body.skipsHolidays}
          onChange={(event) => change({ skipsHolidays: event.target.checked })}
        />
        Leave out public holidays of the client’s region
      </label>
    </FormDialog>
  );
}
