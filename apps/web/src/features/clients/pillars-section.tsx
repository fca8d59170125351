import type { ClientPageShape, PillarBody } from '@zesting/contract';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { ListEditor } from '../../ui/list-editor';
import { clientColour } from '../../ui/tags';
import { useClientSection } from './use-client-section';

/** The subjects the client keeps returning to, with the share each should have. */
export function PillarsSection({ client }: { client: ClientPageShape }) {
  const edited = useClientSection(
    'pillars',
    client,
    ({ pillars }) => ({ pillars }),
    (body) => body,
  );
  const { pillars } = edited.draft;
  const total = pillars.reduce((sum, pillar) => sum + pillar.share, 0);
  return (
    <EditedSection title="Pillars" note="The shares say what the mix should look like; what is left over is free." edited={edited}>
      <div className="flex h-7 rounded-md overflow-hidden border border-line mb-1 max-w-3xl" aria-hidden>
        {pillars.map((pillar, index) => (
          <span
            key={index}
            className="grid place-items-center text-[12px] font-semibold text-card overflow-hidden"
            style={{ width: `${pillar.share}%`, background: clientColour(pillar.colour ?? (index * 5) % 12) }}
          >
            {pillar.share >= 8 ? pillar.share : ''}
          </span>
        ))}
      </div>
      <p className={`mb-3 text-[13px] ${total > 100 ? 'text-rhubarb font-medium' : 'text-muted'}`}>
        {total > 100 ? `${total} percent: ${total - 100} too many` : `${total} percent shared out, ${100 - total} free`}
      </p>
      <div className="max-w-3xl">
        <ListEditor<PillarBody>
          label="Pillars"
          ordered
          items={pillars}
          archived={client.archived.pillars}
          onChange={(next) => edited.change({ pillars: next })}
          nameOf={(pillar) => pillar.name}
          make={() => ({ name: '', share: Math.max(0, 100 - total), colour: freeColour(pillars) })}
          addWords="Add a pillar"
          empty="None yet."
        >
          {(pillar, put) => (
            <div className="grid grid-cols-[minmax(0,1fr)_7rem] sm:grid-cols-[minmax(0,1fr)_7rem_auto] gap-x-3">
              <Field label="Name">
                {(control) => (
                  <input {...control} className="field" value={pillar.name} onChange={(event) => put({ name: event.target.value })} />
                )}
              </Field>
              <Field label="Share, percent">
                {(control) => (
                  <input
                    {...control}
                    type="number"
                    min={0}
                    max={100}
                    className="field tabular"
                    value={pillar.share}
                    onChange={(event) => put({ share: Math.round(Number(event.target.value)) })}
                  />
                )}
              </Field>
              <ColourField label={pillar.name} value={pillar.colour} onChange={(colour) => put({ colour })} />
            </div>
          )}
        </ListEditor>
      </div>
    </EditedSection>
  );
}

const STEPS = Array.from({ length: 12 }, (_, step) => step);

/** The next step around the circle, five at a time, that no pillar has yet. */
function freeColour(pillars: readonly PillarBody[]): number {
  const free = STEPS.map((step) => (step * 5) % 12).find((step) => pillars.every(({ colour }) => colour !== step));
  return free ?? 0;
}

/** One of the twelve colours; which of them is said by number, and the pillar is always named beside it. */
function ColourField({ label, value, onChange }: { label: string; value: number | undefined; onChange: (colour: number) => void }) {
  return (
    <fieldset className="mb-3.5 col-span-2 sm:col-span-1">
      <legend className="font-medium mb-1">Colour</legend>
      <div className="grid grid-cols-6 gap-1">
        {STEPS.map((step) => (
          <button
            key={step}
            type="button"
            aria-pressed={value === step}
            aria-label={`Colour ${step + 1} for ${label || 'the pillar'}`}
            className={`size-6 rounded-md border ${value === step ? 'outline-2 outline-offset-1 outline-ink' : 'border-line'}`}
            style={{ background: clientColour(step) }}
            onClick={() => onChange(step)}
          />
        ))}
      </div>
    </fieldset>
  );
}
