import { useQuery } from '@tanstack/react-query';
import { EvergreenBody, type EvergreenShape, type PieceShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { evergreenQuery } from '../../api/evergreen';
import { againWords } from '../../lib/again-words';
import { call } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { manages } from '../../lib/feature';
import { useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';

/** A rest that is usual for what lasts (common practice: a quarter). */
const USUAL_REST_DAYS = 90;

/** Whether a piece lasts, how it may go out again, and when it may on each channel. Shown once it was out, or where it was said. */
export function EvergreenSection({ piece }: { piece: PieceShape }) {
  const session = useSession();
  const canEdit = manages(session);
  const { data } = useQuery({ ...evergreenQuery(piece.id), enabled: canEdit });
  const [isOpen, setOpen] = useState(false);
  const end = useWrite(() => call(`/pieces/${piece.id}/evergreen`, { method: 'DELETE' }));
  const isOut = piece.placements.some(({ outAt }) => outAt !== null);
  if (!data || (!data.rule && !isOut)) return null;
  return (
    <section aria-labelledby="evergreen" className="card p-4">
      <h2 id="evergreen" className="text-lg mb-1">
        Evergreen
      </h2>
      {data.rule ? (
        <>
          <p className="text-[13px]">{ruleWords(data.rule)}</p>
          <ul className="text-[13px] mt-1.5">
            {data.rows.map((row) => (
              <li key={row.channelId} className="border-t border-line py-1.5">
                {row.channelName} <span className="text-muted">{againWords(row, session.todayOn)}</span>
              </li>
            ))}
          </ul>
          {data.rows.length === 0 && <p className="text-muted text-[13px]">It was not out yet.</p>}
        </>
      ) : (
        <p className="text-muted text-[13px]">Does it hold for longer? What lasts may go out again after a rest.</p>
      )}
      <p className="flex flex-wrap gap-x-3 mt-1">
        <Button look="quiet" className="-ml-3" onClick={() => setOpen(true)}>
          {data.rule ? 'Change…' : 'It lasts…'}
        </Button>
        {data.rule && (
          <Button
            look="quiet"
            disabled={end.isPending}
            onClick={() => end.mutate(undefined, { onSuccess: () => toast('Out of the stock; what is placed stays.') })}
          >
            Take it out of the stock
          </Button>
        )}
      </p>
      {isOpen && <EvergreenDialog pieceId={piece.id} rule={data.rule} onClose={() => setOpen(false)} />}
    </section>
  );
}

function ruleWords({ restDays, timesMost, untilOn }: NonNullable<EvergreenShape['rule']>): string {
  const often = timesMost === null ? '' : `, at most ${count(timesMost, 'time')} on a channel`;
  return `It lasts${untilOn === null ? '' : ` until ${dayWords(untilOn)}`}: out again after ${count(restDays, 'day')}${often}.`;
}

function EvergreenDialog({ pieceId, rule, onClose }: { pieceId: string; rule: EvergreenShape['rule']; onClose: () => void }) {
  const { todayOn } = useSession();
  // as it was opened: who changed it meanwhile is not overwritten
  const [{ version }] = useState({ version: rule?.version ?? 0 });
  const save = useWrite((body: EvergreenBody) => call(`/pieces/${pieceId}/evergreen`, { method: 'PUT', body, version }), { quiet: true });
  const form = useBodyForm<EvergreenBody>(
    EvergreenBody,
    { restDays: rule?.restDays ?? USUAL_REST_DAYS, timesMost: rule?.timesMost ?? null, untilOn: rule?.untilOn ?? null },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast('In the evergreen stock');
        onClose();
      },
      words: {
        restDays: { min: 'At least a day.', max: 'At most ten years.', isInt: 'A whole number of days.' },
        timesMost: { min: 'At least twice: it was out once.', isInt: 'A whole number.' },
        untilOn: { isDay: 'This is no day.' },
      },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="It lasts"
      description="It may go out again on the channels on which it was out."
      action="Keep it"
    >
      <div className="grid sm:grid-cols-2 gap-x-3">
        <Field label="Rest, days" required error={errorOf('restDays')} help="Between two times on one channel.">
          {(control) => (
            <input
              {...control}
              type="number"
              min={1}
              className="field"
              value={Number.isNaN(body.restDays) ? '' : body.restDays}
              onChange={({ target }) => change({ restDays: target.value === '' ? Number.NaN : Number(target.value) })}
            />
          )}
        </Field>
        <Field label="Times at most" error={errorOf('timesMost')} help="On one channel, the first among them.">
          {(control) => (
            <input
              {...control}
              type="number"
              min={2}
              className="field"
              placeholder="as often as it fits"
              value={body.timesMost ?? ''}
              onChange={({ target }) => change({ timesMost: target.value === '' ? null : Number(target.value) })}
            />
          )}
        </Field>
      </div>
      <DayField
        label="Holds until"
        help="Empty: for good."
        todayOn={todayOn}
        value={body.untilOn ?? ''}
        error={errorOf('untilOn')}
        onChange={(on) => change({ untilOn: on || null })}
      />
    </FormDialog>
  );
}
