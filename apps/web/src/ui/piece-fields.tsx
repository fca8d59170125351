import type { ClientShape, FeasibilityShape, NewPieceBody, RouteShape } from '@zesting/contract';
import { dayWords, minutesWords, zoneWords } from '../lib/format';
import type { OffReason } from '../lib/off-days';
import { DayField } from './day-field';
import { Field } from './field';
import { OptionField } from './option-field';
import { PurposeField } from './purpose-field';
import { TickList } from './tick-list';

interface PieceFieldsProps {
  readonly body: NewPieceBody;
  readonly client: ClientShape | undefined;
  readonly routes: readonly RouteShape[] | undefined;
  readonly feasibility: FeasibilityShape | undefined;
  readonly todayOn: string;
  readonly off: OffReason;
  readonly change: (part: Partial<NewPieceBody>) => void;
  readonly errorOf: (name: 'routeId') => string | undefined;
}

/** How a piece begins: its route, pillar, channels and day, with what the route would allow. */
export function PieceFields({ body, client, routes, feasibility, todayOn, off, change, errorOf }: PieceFieldsProps) {
  const route = routes?.find((candidate) => candidate.id === body.routeId);
  const earliest = feasibility?.earliestOn;
  const predicted = feasibility?.predictedOn ?? earliest;
  const tooSoon = earliest !== undefined && typeof body.wishOn === 'string' && body.wishOn < earliest;
  const leaveOut = body.leaveOut ?? [];
  return (
    <>
      <div className="grid sm:grid-cols-2 gap-x-3">
        <Field label="Route" required help={route?.steps.join(' → ')} error={errorOf('routeId')}>
          {(control) => (
            <select
              {...control}
              className="field"
              value={body.routeId}
              onChange={(event) => change({ routeId: event.target.value, leaveOut: [] })}
            >
              {!route && <option value={body.routeId}>Choose a route</option>}
              {routes?.map((choice) => (
                <option key={choice.id} value={choice.id}>
                  {choice.formatName === choice.name ? choice.name : `${choice.formatName}: ${choice.name}`}
                </option>
              ))}
            </select>
          )}
        </Field>
        <div className="grid grid-cols-2 gap-x-3">
          <OptionField
            label="Pillar"
            none="None yet"
            value={body.pillarId ?? null}
            options={client?.pillars ?? []}
            onChange={(pillarId) => change({ pillarId })}
          />
          <PurposeField value={body.purpose} onChange={(purpose) => change({ purpose })} />
        </div>
      </div>
      {route && route.optional.length > 0 && (
        <TickList
          label="Without these steps"
          options={route.optional.map(({ key, title }) => ({ id: key, name: title }))}
          chosen={leaveOut}
          onChange={(keys) => change({ leaveOut: keys })}
        />
      )}
      <TickList
        label="Channels"
        options={client?.channels ?? []}
        chosen={body.channelIds}
        onChange={(channelIds) => change({ channelIds })}
        empty="This client has no channel yet."
      />
      <DayField
        label="Wish date"
        todayOn={todayOn}
        min={todayOn}
        off={off}
        marks={earliest ? [{ on: earliest, words: 'Earliest that this route allows' }] : []}
        value={body.wishOn ?? ''}
        onChange={(on) => change({ wishOn: on || null })}
        help={
          earliest && (
            <p className={tooSoon ? 'text-rind font-medium' : ''}>
              {tooSoon ? 'This cannot be met. ' : ''}The earliest date this route allows is {dayWords(earliest)}
              {client && ` in ${zoneWords(client.zone)}`}
              {predicted !== earliest && predicted && <>, and {dayWords(predicted)} is predicted after what is taken on</>}; it adds{' '}
              {minutesWords(feasibility.effortMinutes)} of work.{' '}
              {tooSoon && (
                <button type="button" className="underline min-h-6" onClick={() => change({ wishOn: earliest })}>
                  Take {dayWords(earliest)}
                </button>
              )}
            </p>
          )
        }
      />
      {(feasibility?.doers.length ?? 0) > 0 && (
        <label className="flex items-start gap-2 mb-3.5">
          <input
            type="checkbox"
            className="size-4 mt-0.5 accent-pine"
            checked={body.giveFirst ?? false}
            onChange={(event) => change({ giveFirst: event.target.checked })}
          />
          <span>
            Give the steps to {feasibility?.doers.some(({ isUsual }) => isUsual) ? 'who usually does them, else ' : ''}who is free first
            <span className="block text-muted text-[13px]">
              {feasibility?.doers.map(({ title, name, finishOn }) => `${title} ${name}, until ${dayWords(finishOn)}`).join(' · ')}
            </span>
          </span>
        </label>
      )}
    </>
  );
}
