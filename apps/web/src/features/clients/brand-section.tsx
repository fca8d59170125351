import type { BrandBody, ClientPageShape, PaletteColourBody, UploadShape } from '@zesting/contract';
import { parseHex } from '@zesting/core';
import { ImagePlus } from 'lucide-react';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { upload, wordsOf } from '../../lib/api';
import { Button } from '../../ui/button';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { ListEditor } from '../../ui/list-editor';
import { ContrastTable } from './contrast-table';
import { useClientSection } from './use-client-section';
import { Picture } from '../../ui/picture';

const toWords = (text: string): string[] => text.split(/[\n,]+/).flatMap((word) => word.trim() || []);

/** What makers need to know of a brand: voice, colours and what they can be used for, logos, words, disclosure. */
export function BrandSection({ client }: { client: ClientPageShape }) {
  const edited = useClientSection(
    'brand',
    client,
    ({ brand }) => brand,
    (brand) => ({ brand }),
  );
  const { draft, change } = edited;
  return (
    <EditedSection title="Brand sheet" note="Everyone who makes something for this client reads it." edited={edited}>
      <div className="grid gap-x-8 gap-y-2 lg:grid-cols-2">
        <div>
          <Field label="Voice" help="How the client speaks, and how it never does.">
            {(control) => (
              <textarea
                {...control}
                className="field"
                rows={5}
                value={draft.voice}
                onChange={(event) => change({ voice: event.target.value })}
              />
            )}
          </Field>
          <WordsField label="Words to use" words={draft.wordsToUse} onChange={(wordsToUse) => change({ wordsToUse })} />
          <WordsField label="Words never to use" words={draft.wordsNever} onChange={(wordsNever) => change({ wordsNever })} />
          <Field label="Disclosure" help="As it should stand, where the law or the client asks for one.">
            {(control) => (
              <input
                {...control}
                className="field"
                value={draft.disclosure}
                onChange={(event) => change({ disclosure: event.target.value })}
              />
            )}
          </Field>
          <label className="flex items-center gap-2 min-h-8 mb-3 -mt-1">
            <input
              type="checkbox"
              className="size-4 accent-pine"
              checked={draft.needsDisclosure ?? false}
              onChange={(event) => change({ needsDisclosure: event.target.checked })}
            />
            Nothing goes out without a disclosure
          </label>
          <Logos client={client} logos={draft.logos} onChange={(logos) => change({ logos })} />
        </div>
        <Palette palette={draft.palette} onChange={(palette) => change({ palette })} />
      </div>
    </EditedSection>
  );
}

function WordsField({ label, words, onChange }: { label: string; words: readonly string[]; onChange: (words: string[]) => void }) {
  const [text, setText] = useState<string | null>(null);
  return (
    <Field label={label} help="Apart by commas or lines.">
      {(control) => (
        <textarea
          {...control}
          className="field"
          rows={2}
          value={text ?? words.join(', ')}
          onChange={(event) => {
            setText(event.target.value);
            onChange(toWords(event.target.value));
          }}
          onBlur={() => setText(null)}
        />
      )}
    </Field>
  );
}

function Palette({ palette, onChange }: { palette: BrandBody['palette']; onChange: (palette: PaletteColourBody[]) => void }) {
  return (
    <div>
      <h3 className="text-base mb-2">Palette</h3>
      <ListEditor<PaletteColourBody>
        label="Palette"
        ordered
        items={palette}
        onChange={onChange}
        nameOf={(colour) => colour.name}
        make={() => ({ name: '', hex: '#17251d' })}
        addWords="Add a colour"
        empty="No colour yet."
      >
        {(colour, put) => (
          <div className="grid grid-cols-[2.5rem_minmax(0,1fr)_7.5rem] gap-x-3 items-end">
            <input
              type="color"
              aria-label={`Colour of ${colour.name || 'this entry'}`}
              className="size-9 mb-3.5 rounded-md border border-line"
              value={colour.hex}
              onChange={(event) => put({ hex: event.target.value })}
            />
            <Field label="Name">
              {(control) => (
                <input {...control} className="field" value={colour.name} onChange={(event) => put({ name: event.target.value })} />
              )}
            </Field>
            <Field label="Hex">
              {(control) => (
                <input
                  {...control}
                  key={colour.hex}
                  className="field tabular"
                  defaultValue={colour.hex}
                  onBlur={(event) => {
                    const hex = parseHex(event.target.value);
                    if (hex) put({ hex });
                    else event.target.value = colour.hex;
                  }}
                />
              )}
            </Field>
          </div>
        )}
      </ListEditor>
      <ContrastTable palette={palette} />
    </div>
  );
}

function Logos({ client, logos, onChange }: { client: ClientPageShape; logos: readonly string[]; onChange: (logos: string[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const add = async (file: File | undefined) => {
    if (!file) return;
    try {
      const { assetId } = await upload<UploadShape>(`/clients/${client.id}/files`, file);
      onChange([...logos, assetId]);
    } catch (error) {
      toast.error(`${file.name}: ${wordsOf(error)}`);
    }
  };
  return (
    <div role="group" aria-label="Logos">
      <p className="font-medium mb-1">Logos</p>
      <ul className="flex flex-wrap gap-2 mb-2">
        {logos.map((id, index) => (
          <li key={id} className="card p-2 grid gap-1 justify-items-center">
            <Picture
              src={`/api/files/${id}`}
              alt={client.logos.find((logo) => logo.assetId === id)?.name ?? 'New logo'}
              className="h-16 max-w-32 object-contain"
            />
            <button
              type="button"
              className="text-rhubarb underline text-[13px] min-h-6"
              onClick={() => onChange(logos.filter((other) => other !== id))}
            >
              Take out<span className="sr-only"> logo {index + 1}</span>
            </button>
          </li>
        ))}
      </ul>
      <input
        ref={input}
        type="file"
        accept="image/*"
        className="sr-only"
        tabIndex={-1}
        aria-label="Add a logo"
        onChange={(event) => {
          void add(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      <Button onClick={() => input.current?.click()}>
        <ImagePlus size={16} aria-hidden /> Add a logo
      </Button>
    </div>
  );
}
