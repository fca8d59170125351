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
            style={{ width: `${pillar.share}%`, background: clientColour((client.colour + 2 * index) % 12) }}
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
          make={() => ({ name: '', share: Math.max(0, 100 - total) })}
          addWords="Add a pillar"
          empty="None yet."
        >
          {(pillar, put) => (
            <div className="grid grid-cols-[minmax(0,1fr)_7rem] gap-x-3">
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
            </div>
          )}
        </ListEditor>
      </div>
    </EditedSection>
  );
}
