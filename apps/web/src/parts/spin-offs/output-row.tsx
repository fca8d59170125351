import type { PreviewedOutputShape } from '@zesting/contract';
import { clipTime, readClipTime } from '@zesting/core';
import { useState } from 'react';
import { dayWords } from '../../lib/format';
import { useDaysOff, useSession } from '../../lib/queries';
import { Button } from '../../ui/button';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { StandingTag } from '../standing-tag';

/** One output that may be made, as it is being changed. */
export interface Output {
  readonly id: string;
  readonly lineKey: string;
  readonly name: string;
  readonly on: string | null;
  /** in seconds; undefined: nothing is typed; NaN: what is typed is no time */
  readonly from: number | undefined;
  readonly to: number | undefined;
  readonly isChosen: boolean;
}

interface OutputRowProps {
  readonly output: Output;
  /** what it would be called as a piece */
  readonly title: string;
  /** what it would come to; undefined until that is reckoned */
  readonly seen: PreviewedOutputShape | undefined;
  /** what stands on its day and speaks against it */
  readonly against: readonly string[];
  readonly clientId: string;
  readonly put: (part: Partial<Output>) => void;
  readonly onAnother: () => void;
}

/** An output: whether it is made, what it is called, on which day, and what that comes to. */
export function OutputRow({ output, title: name, seen, against, clientId, put, onAnother }: OutputRowProps) {
  const { todayOn } = useSession();
  const off = useDaysOff({ clientId, placing: true });
  const head = (
    <div className="min-w-0">
      <label className="flex items-start gap-2 min-h-7 font-medium">
        <input
          type="checkbox"
          className="size-4 accent-pine mt-0.5"
          checked={output.isChosen}
          onChange={(event) => put({ isChosen: event.target.checked })}
        />
        <span className="break-words min-w-0">{name}</span>
      </label>
      <p className="text-muted text-[13px]">
        {[seen?.channelName ?? 'no channel yet', seen?.formatName, seen?.isThere ? 'made before' : ''].filter(Boolean).join(' · ')}
      </p>
    </div>
  );
  if (!output.isChosen) return <li className="py-2 border-t border-line first:border-t-0">{head}</li>;
  return (
    <li className="py-2 border-t border-line first:border-t-0">
      <div role="group" aria-label={name}>
        <div className="grid gap-x-4 md:grid-cols-[minmax(0,1fr)_12rem_minmax(0,1fr)] items-start">
          <div className="min-w-0">
            {head}
            {seen?.change && <p className="text-[13px] break-words">{seen.change}</p>}
          </div>
          <DayField
            label="Day"
            todayOn={todayOn}
            min={todayOn}
            off={off}
            value={output.on ?? ''}
            onChange={(on) => put({ on: on || null })}
          />
          <div className="text-[13px]">
            {seen && output.on && (
              <p className="flex flex-wrap items-center gap-x-2">
                <StandingTag standing={seen.standing} />
                {seen.beginBy && <span>begins by {dayWords(seen.beginBy)},</span>}
                <span>could be out {dayWords(seen.predictedOn)}</span>
              </p>
            )}
            {against.length > 0 && <p className="text-rind font-medium">{against.join(', ')}</p>}
            {seen && seen.doers.length > 0 && <p className="text-muted">{[...new Set(seen.doers.map((doer) => doer.name))].join(', ')}</p>}
            {seen?.obstacle && <p className="text-muted">Most often in the way: {seen.obstacle}</p>}
          </div>
        </div>
        <details>
          <summary className="text-pine min-h-7 text-[13px]">
            Name, clip times, one more<span className="sr-only"> of {name}</span>
          </summary>
          <div className="grid grid-cols-2 md:grid-cols-[minmax(0,1fr)_6rem_6rem_auto] gap-x-3 items-start pt-1">
            <Field label="Called">
              {(control) => (
                <input
                  {...control}
                  className="field"
                  maxLength={80}
                  value={output.name}
                  onChange={(event) => put({ name: event.target.value })}
                />
              )}
            </Field>
            <ClipTimeField label="Clip from" value={output.from} onChange={(from) => put({ from })} />
            <ClipTimeField label="Clip to" value={output.to} onChange={(to) => put({ to })} />
            <Button className="md:mt-6" aria-label={`Another of this: ${name}`} onClick={onAnother}>
              Another of this
            </Button>
          </div>
        </details>
      </div>
    </li>
  );
}

interface ClipTimeFieldProps {
  readonly label: string;
  /** in seconds; undefined: none; NaN: what is typed is no time */
  readonly value: number | undefined;
  readonly onChange: (seconds: number | undefined) => void;
}

/** A time in a clip, as `1:15` or in seconds. */
export function ClipTimeField({ label, value, onChange }: ClipTimeFieldProps) {
  const [typed, setTyped] = useState(value === undefined || Number.isNaN(value) ? '' : clipTime(value));
  return (
    <Field label={label} error={Number.isNaN(value) ? 'Such as 1:15' : undefined}>
      {(control) => (
        <input
          {...control}
          className="field tabular"
          inputMode="numeric"
          placeholder="m:ss"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            onChange(event.target.value.trim() === '' ? undefined : (readClipTime(event.target.value) ?? Number.NaN));
          }}
        />
      )}
    </Field>
  );
}
