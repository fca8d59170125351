import type { AgencySettingsShape } from '@zesting/contract';
import { parseHex } from '@zesting/core';
import { ImagePlus } from 'lucide-react';
import { useRef, useState } from 'react';
import { call, upload, wordsOf } from '../../lib/api';
import { Button } from '../../ui/button';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { isLegible } from '../../ui/visitor-frame';
import { useAgencySection, useSavedAgency } from './use-agency-section';

/** The agency's mark and colour on the pages of contacts: form, room, receipt. */
export function LookSection({ agency }: { agency: AgencySettingsShape }) {
  const { edited, locked } = useAgencySection(
    'look',
    agency,
    ({ accent }) => ({ accent }),
    (body) => body,
  );
  const { accent } = edited.draft;
  return (
    <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_24rem] items-start">
      <div className="grid gap-4">
        <MarkCard agency={agency} locked={locked} />
        <EditedSection
          title="Colour"
          note="For the buttons and links of their pages; the client’s own colour stays on top."
          edited={edited}
          readOnly={locked}
        >
          <div className="flex items-end gap-3">
            <input
              type="color"
              aria-label="Choose the colour"
              disabled={locked}
              className="size-9 mb-3.5 rounded-md border border-line"
              value={accent ?? '#1e5b43'}
              onChange={(event) => edited.change({ accent: event.target.value })}
            />
            <Field label="Colour">
              {(control) => (
                <input
                  {...control}
                  key={accent}
                  className="field tabular w-32"
                  readOnly={locked}
                  placeholder="as Zesting’s"
                  defaultValue={accent ?? ''}
                  onBlur={(event) => {
                    const colour = parseHex(event.target.value);
                    if (colour || event.target.value.trim() === '') edited.change({ accent: colour ?? null });
                    else event.target.value = accent ?? '';
                  }}
                />
              )}
            </Field>
          </div>
          {accent && !isLegible(accent) && (
            <p role="status" className="text-rind max-w-[60ch]">
              This is too light to be read on white, so it is used for the line under the heading alone. A darker one serves buttons and
              links too.
            </p>
          )}
        </EditedSection>
      </div>
      <Preview agency={agency} accent={accent} />
    </div>
  );
}

function MarkCard({ agency, locked }: { agency: AgencySettingsShape; locked: boolean }) {
  const saved = useSavedAgency();
  const input = useRef<HTMLInputElement>(null);
  const [error, setError] = useState<string>();
  const write = async (work: () => Promise<AgencySettingsShape>) => {
    setError(undefined);
    try {
      saved(await work());
    } catch (problem) {
      setError(wordsOf(problem));
    }
  };
  return (
    <section aria-label="Mark" className="card p-4">
      <h2 className="text-lg mb-1">Mark</h2>
      <p className="text-muted mb-3">A picture beside your name; it is shown 32 pixels high.</p>
      <div className="flex items-center gap-3">
        {agency.markAddress ? (
          <img
            src={agency.markAddress}
            alt="The agency’s mark"
            className="h-16 max-w-48 object-contain border border-line rounded-md p-1 bg-white"
          />
        ) : (
          <span className="h-16 w-24 grid place-items-center border border-dashed border-line-strong rounded-md text-muted text-[13px]">
            None
          </span>
        )}
        {!locked && (
          <>
            <input
              ref={input}
              type="file"
              accept="image/*"
              className="sr-only"
              tabIndex={-1}
              aria-label="Picture of the mark"
              onChange={(event) => {
                const file = event.target.files?.[0];
                event.target.value = '';
                if (file) void write(() => upload<AgencySettingsShape>('/agency/mark', file, { method: 'PUT', version: agency.version }));
              }}
            />
            <Button onClick={() => input.current?.click()}>
              <ImagePlus size={15} aria-hidden /> {agency.markAddress ? 'Another picture' : 'Choose a picture'}
            </Button>
            {agency.markAddress && (
              <Button
                look="quiet"
                onClick={() => void write(() => call<AgencySettingsShape>('/agency/mark', { method: 'DELETE', version: agency.version }))}
              >
                Take away
              </Button>
            )}
          </>
        )}
      </div>
      {error && (
        <p role="alert" className="text-rhubarb font-medium mt-2">
          {error}
        </p>
      )}
    </section>
  );
}

/** How the head of a contact's page comes out. */
function Preview({ agency, accent }: { agency: AgencySettingsShape; accent: string | null }) {
  const action = accent && isLegible(accent) ? accent : '#1e5b43';
  return (
    <figure className="card overflow-hidden">
      <figcaption className="text-muted text-[13px] px-4 pt-3 pb-2">As a contact sees it, by day</figcaption>
      <div className="border-t border-line" style={{ background: '#f7f6f1', color: '#17251d' }} aria-hidden>
        <div
          className="px-4 py-3 flex items-center gap-2"
          style={{ background: '#fff', borderTop: '5px solid #7a6a1f', borderBottom: `2px solid ${accent ?? '#dedcd2'}` }}
        >
          <span className="font-display text-lg font-semibold">Your client</span>
          <span className="ml-auto flex items-center gap-2 text-[13px]" style={{ color: '#56615a' }}>
            with {agency.name}
            {agency.markAddress && <img src={agency.markAddress} alt="" className="h-8 max-w-24 object-contain" />}
          </span>
        </div>
        <div className="p-4">
          <p className="mb-3">A piece waits for your word.</p>
          <span className="inline-flex rounded-md px-3 min-h-8 items-center font-medium" style={{ background: action, color: '#fff' }}>
            Approve
          </span>
        </div>
      </div>
    </figure>
  );
}
