import { useQuery } from '@tanstack/react-query';
import { EmbargoBody, type EmbargoRuleShape, type PieceShape } from '@zesting/contract';
import { outsideOf } from '@zesting/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { embargoQuery } from '../../api/embargoes';
import { call } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { Tag } from '../../ui/tags';

/** Between which days a piece may be out, and which of its placements lie outside. */
export function EmbargoLine({ piece }: { piece: PieceShape }) {
  const { data } = useQuery(embargoQuery(piece.id));
  const [isOpen, setOpen] = useState(false);
  const lift = useWrite(() => call(`/pieces/${piece.id}/embargo`, { method: 'DELETE' }));
  if (!data || (!data.rule && !piece.canManage)) return null;
  const { rule } = data;
  const outside = rule
    ? piece.placements.filter(({ on, state }) => on !== null && state !== 'out' && state !== 'cancelled' && outsideOf(rule, on) !== null)
    : [];
  return (
    <div className="border-t border-line mt-2 pt-2 text-[13px]">
      {rule && (
        <p>
          May be out {windowWords(rule)}
          {rule.why && <span className="text-muted">: {rule.why}</span>}
        </p>
      )}
      {outside.map(({ id, channelName, on }) => (
        <p key={id} className="mt-1">
          <Tag tone="rind">Outside</Tag> {channelName}, {dayWords(on ?? '')}
        </p>
      ))}
      {piece.canManage && (
        <p className="flex flex-wrap gap-x-3">
          <Button look="quiet" className="-ml-3" onClick={() => setOpen(true)}>
            {rule ? 'Change these days…' : 'Embargo or last day…'}
          </Button>
          {rule && (
            <Button
              look="quiet"
              disabled={lift.isPending}
              onClick={() => lift.mutate(undefined, { onSuccess: () => toast('It may be out on any day') })}
            >
              Any day
            </Button>
          )}
        </p>
      )}
      {isOpen && <EmbargoDialog pieceId={piece.id} rule={rule} onClose={() => setOpen(false)} />}
    </div>
  );
}

function windowWords({ notBeforeOn, notAfterOn }: EmbargoRuleShape): string {
  if (notBeforeOn === null) return `until ${dayWords(notAfterOn ?? '')}`;
  return notAfterOn === null ? `from ${dayWords(notBeforeOn)} on` : `from ${dayWords(notBeforeOn)} until ${dayWords(notAfterOn)}`;
}

function EmbargoDialog({ pieceId, rule, onClose }: { pieceId: string; rule: EmbargoRuleShape | null; onClose: () => void }) {
  const { todayOn } = useSession();
  // as it was opened: who changed it meanwhile is not overwritten
  const [{ version }] = useState({ version: rule?.version ?? 0 });
  const save = useWrite((body: EmbargoBody) => call(`/pieces/${pieceId}/embargo`, { method: 'PUT', body, version }), { quiet: true });
  const form = useBodyForm<EmbargoBody>(
    EmbargoBody,
    { notBeforeOn: rule?.notBeforeOn ?? null, notAfterOn: rule?.notAfterOn ?? null, why: rule?.why ?? '' },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast(`May be out ${windowWords({ ...body, version })}`);
        onClose();
      },
      words: { notBeforeOn: { isDay: 'This is no day.' }, notAfterOn: { isDay: 'This is no day.' } },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="When it may be out"
      description="Outside these days it does not go out, whoever placed it there."
      action="Keep it"
    >
      <div className="grid sm:grid-cols-2 gap-x-3">
        <DayField
          label="Not before"
          help="Empty: any day. An embargo, or the day of a launch."
          todayOn={todayOn}
          value={body.notBeforeOn ?? ''}
          error={errorOf('notBeforeOn')}
          onChange={(on) => change({ notBeforeOn: on || null })}
        />
        <DayField
          label="Not after"
          help="Empty: for good. The last day on which it holds."
          todayOn={todayOn}
          value={body.notAfterOn ?? ''}
          error={errorOf('notAfterOn')}
          onChange={(on) => change({ notAfterOn: on || null })}
        />
      </div>
      <Field label="Why" error={errorOf('why')} help="Whoever places it reads this.">
        {(control) => <input {...control} className="field" value={body.why} onChange={({ target }) => change({ why: target.value })} />}
      </Field>
    </FormDialog>
  );
}
