import type { GuidelineShape, RouteShape, SpreadLineBody, TeamRoleShape } from '@zesting/contract';
import { OFFSET_MOST, type CopyShape, type Offset } from '@zesting/core';
import { useState } from 'react';
import { Field } from '../../../ui/field';
import { FieldGroup } from '../../../ui/field-group';
import { OptionField } from '../../../ui/option-field';
import { TextField } from '../../../ui/text-field';

interface SpreadLineFieldsProps {
  readonly line: SpreadLineBody;
  readonly put: (part: Partial<SpreadLineBody>) => void;
  readonly index: number;
  readonly channels: readonly { readonly id: string; readonly name: string }[];
  readonly routes: readonly RouteShape[];
  readonly guidelines: readonly GuidelineShape[];
  readonly roles: readonly TeamRoleShape[];
}

/** One output of a spread: where, how and when it is made, and what is to be changed. */
export function SpreadLineFields({ line, put, index, channels, routes, guidelines, roles }: SpreadLineFieldsProps) {
  const of = `of output ${index + 1}`;
  return (
    <fieldset className="min-w-0">
      <legend className="sr-only">Output {index + 1}</legend>
      <div className="grid sm:grid-cols-2 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_minmax(0,1fr)_minmax(0,1.5fr)] gap-x-3">
        <Field label="Called">
          {(control) => (
            <input
              {...control}
              className="field"
              maxLength={80}
              placeholder="as its source"
              value={line.name}
              onChange={(event) => put({ name: event.target.value })}
            />
          )}
        </Field>
        <OptionField
          label="Channel"
          none="Not said yet"
          value={line.channelId}
          options={channels}
          onChange={(channelId) => put({ channelId })}
        />
        <Field label="Route" required>
          {(control) => (
            <select {...control} className="field" value={line.routeId} onChange={(event) => put({ routeId: event.target.value })}>
              {!routes.some(({ id }) => id === line.routeId) && <option value={line.routeId}>Choose a route</option>}
              {routes.map(({ id, name, formatName }) => (
                <option key={id} value={id}>
                  {formatName === name ? name : `${formatName}: ${name}`}
                </option>
              ))}
            </select>
          )}
        </Field>
        <OffsetField offset={line.offset} onChange={(offset) => put({ offset })} />
      </div>
      <TextField label="What is to be changed" rows={2} maxLength={2000} value={line.change} onChange={(change) => put({ change })} />
      <div className="flex flex-wrap gap-x-5 mb-2">
        <Tick label="Its text is written anew" isOn={line.needsCopy} onChange={(needsCopy) => put({ needsCopy })} />
        <Tick label="Its pictures are made anew" isOn={line.needsPicture} onChange={(needsPicture) => put({ needsPicture })} />
        <Tick
          label="Its text is the source’s as slides, one per main heading"
          isOn={line.shape === 'slides'}
          onChange={(isOn) => put({ shape: (isOn ? 'slides' : 'as_it_is') satisfies CopyShape })}
        />
      </div>
      <details open={line.callToAction !== '' || line.doers.length > 0 || line.obstacle !== '' || line.guidelineId !== null}>
        <summary className="text-pine font-medium min-h-7">
          Call to action, guideline, doers<span className="sr-only"> {of}</span>
        </summary>
        <div className="grid sm:grid-cols-2 gap-x-3 pt-1">
          <TextField
            label="Call to action"
            maxLength={300}
            help="Stands under the text."
            value={line.callToAction}
            onChange={(callToAction) => put({ callToAction })}
          />
          <OptionField
            label="Guideline"
            none="What holds anyway"
            value={line.guidelineId}
            options={guidelines.map(({ id, title }) => ({ id, name: title }))}
            onChange={(guidelineId) => put({ guidelineId })}
          />
          <TextField
            label="What most often stands in its way"
            maxLength={300}
            value={line.obstacle}
            onChange={(obstacle) => put({ obstacle })}
          />
        </div>
        <Doers line={line} roles={roles} put={put} />
      </details>
    </fieldset>
  );
}

function Tick({ label, isOn, onChange }: { label: string; isOn: boolean; onChange: (isOn: boolean) => void }) {
  return (
    <label className="inline-flex items-center gap-2 min-h-8">
      <input type="checkbox" className="size-4 accent-pine" checked={isOn} onChange={(event) => onChange(event.target.checked)} />
      {label}
    </label>
  );
}

const WAYS = [
  { id: 'working_days after', name: 'working days after' },
  { id: 'working_days before', name: 'working days before' },
  { id: 'days after', name: 'days after' },
  { id: 'days before', name: 'days before' },
] as const;

/** When it is published, from its source's day. */
function OffsetField({ offset, onChange }: { offset: Offset; onChange: (offset: Offset) => void }) {
  const [chosen, setChosen] = useState<'before' | 'after'>('after'); // what a number says that is not typed yet
  const side = offset.count === 0 ? chosen : offset.count < 0 ? 'before' : 'after';
  const way = `${offset.unit} ${side}`;
  const put = (number: number, [unit, to]: string[]) => {
    setChosen(to === 'before' ? 'before' : 'after');
    onChange({ count: to === 'before' && number > 0 ? -number : number, unit: unit === 'days' ? 'days' : 'working_days' });
  };
  return (
    <FieldGroup label="Published">
      {() => (
        <div className="grid grid-cols-[4rem_minmax(0,1fr)] gap-2">
          <input
            type="number"
            aria-label="How many"
            min={0}
            max={OFFSET_MOST}
            className="field"
            value={Math.abs(offset.count)}
            onChange={(event) => put(Math.min(OFFSET_MOST, Math.abs(Math.round(Number(event.target.value)))), way.split(' '))}
          />
          <select
            aria-label="From its source’s day"
            className="field"
            value={way}
            onChange={(event) => put(Math.abs(offset.count), event.target.value.split(' '))}
          >
            {WAYS.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </div>
      )}
    </FieldGroup>
  );
}

/** Who does what at this output; whoever usually does, where nobody is named. */
function Doers({
  line,
  roles,
  put,
}: {
  line: SpreadLineBody;
  roles: readonly TeamRoleShape[];
  put: (part: Partial<SpreadLineBody>) => void;
}) {
  const asked = roles.filter(({ routes, skill }) => routes > 0 || line.doers.some((doer) => doer.skill === skill));
  return (
    <div className="grid sm:grid-cols-2 lg:grid-cols-4 gap-x-3">
      {asked.map(({ skill, able, personName }) => (
        <OptionField
          key={skill}
          label={`Who does ${skill}`}
          none={personName ? `${personName}, as usual` : 'Whoever is free'}
          value={line.doers.find((doer) => doer.skill === skill)?.personId ?? null}
          options={able.map(({ personId, name }) => ({ id: personId, name }))}
          onChange={(personId) =>
            put({ doers: [...line.doers.filter((doer) => doer.skill !== skill), ...(personId ? [{ skill, personId }] : [])] })
          }
        />
      ))}
    </div>
  );
}
