import { useQuery } from '@tanstack/react-query';
import type { MaterialMadeShape, MaterialShape, PieceShape } from '@zesting/contract';
import { MaterialBody } from '@zesting/contract';
import { MATERIAL_SORTS, type MaterialSort } from '@zesting/core';
import { FileText, Link as LinkIcon, Paperclip, Plus, Quote, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { materialQuery } from '../../../api/material';
import { call } from '../../../lib/api';
import { bytesWords, instantWords } from '../../../lib/format';
import { useWrite } from '../../../lib/queries';
import { useBodyForm } from '../../../lib/use-body-form';
import { useOpened } from '../../../lib/use-opened';
import { useReached } from '../../../lib/use-reached';
import { useUploads } from '../../../lib/use-uploads';
import { Button, IconButton } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { FormDialog } from '../../../ui/form-dialog';
import { LinkedText } from '../../../ui/linked-text';
import { PickFiles } from '../../../ui/pick-files';
import { Picture } from '../../../ui/picture';
import { Tag } from '../../../ui/tags';
import { LinkField, TextField } from '../../../ui/text-field';
import { UploadList } from '../../../ui/upload-list';
import { bySort, materialName, SORT_WORDS } from './material-words';

const SORTS = MATERIAL_SORTS.map((sort) => [sort, SORT_WORDS[sort][0]] as const);

/** What makers work from: originals, working files, references and what was said. Nothing of it goes out. */
export function MaterialSection({ piece }: { piece: PieceShape }) {
  const { data } = useQuery(materialQuery(piece.id));
  const { opened, open, close } = useOpened();
  const [sort, setSort] = useState<MaterialSort>('working');
  const add = useWrite((body: MaterialBody) => call<MaterialMadeShape>(`/pieces/${piece.id}/material`, { method: 'POST', body }));
  const uploads = useUploads(`/pieces/${piece.id}/uploads`, ({ assetId }) => add.mutate({ sort, label: '', assetId }));
  useReached('material', data !== undefined);
  const material = data?.material ?? [];
  return (
    <section id="material" aria-labelledby="material-head" className="card p-4 scroll-mt-4">
      <h2 id="material-head" className="text-lg">
        Material
      </h2>
      <p className="text-muted text-[13px] mb-1">What the piece is made from. Nothing of it goes out.</p>
      {bySort(material).map(([of, list]) => (
        <div key={of} className="mt-3">
          <h3 className="text-muted text-[13px] font-sans font-normal tracking-normal">{SORT_WORDS[of][1]}</h3>
          <ul aria-label={SORT_WORDS[of][1]}>
            {list.map((one) => (
              <Item key={one.id} one={one} canWrite={piece.canWrite} />
            ))}
          </ul>
        </div>
      ))}
      {data && material.length === 0 && <p className="mt-2">None yet.</p>}
      {piece.canWrite && (
        <>
          <UploadList uploads={uploads} />
          <div className="flex flex-wrap items-center gap-2 mt-3">
            <label className="flex items-center gap-2">
              <span className="text-[13px] text-muted">Files as</span>
              <select className="field w-auto" value={sort} onChange={({ target }) => setSort(target.value as MaterialSort)}>
                {SORTS.map(([value, words]) => (
                  <option key={value} value={value}>
                    {words}
                  </option>
                ))}
              </select>
            </label>
            <PickFiles label="Files for the material" onPick={uploads.add}>
              <Paperclip size={16} aria-hidden /> Add files
            </PickFiles>
            <Button onClick={() => open('material')}>
              <Plus size={16} aria-hidden /> Add a link or words…
            </Button>
          </div>
        </>
      )}
      {piece.canWrite && opened === 'material' && <AddDialog pieceId={piece.id} onClose={close} />}
    </section>
  );
}

function Item({ one, canWrite }: { one: MaterialShape; canWrite: boolean }) {
  const name = materialName(one);
  const put = useWrite((isAway: boolean) =>
    isAway ? call(`/material/${one.id}`, { method: 'DELETE' }) : call(`/material/${one.id}/restore`, { method: 'POST' }),
  );
  const remove = () =>
    put.mutate(true, {
      onSuccess: () => toast(`${name} is taken away.`, { action: { label: 'Undo', onClick: () => put.mutate(false) } }),
    });
  return (
    <li className="flex items-start gap-2 py-1.5 border-t border-line first:border-t-0">
      <Sign one={one} />
      <div className="flex-1 min-w-0">
        {one.text !== null ? (
          <details>
            <summary className="cursor-pointer min-h-6 break-words font-medium">{name}</summary>
            <p className="whitespace-pre-wrap break-words mt-1 max-w-[70ch]">
              <LinkedText text={one.text} />
            </p>
          </details>
        ) : (
          <a
            href={one.file ? `/api/files/${one.file.assetId}` : (one.url ?? '')}
            target="_blank"
            rel="noreferrer noopener"
            className="text-pine underline break-all inline-flex items-center min-h-6"
          >
            {name}
          </a>
        )}
        <p className="text-muted text-[12.5px] flex flex-wrap items-center gap-x-2">
          <span>
            {one.by}, {instantWords(one.at)}
            {one.file && `, ${bytesWords(one.file.bytes)}`}
          </span>
          {one.isFromClient && <Tag tone="lake">from the client</Tag>}
          {one.isInContent && <Tag tone="pine">in the content</Tag>}
        </p>
      </div>
      {canWrite && (
        <IconButton label={`Take ${name} away`} disabled={put.isPending} onClick={remove}>
          <Trash2 size={16} aria-hidden />
        </IconButton>
      )}
    </li>
  );
}

/** A small picture of it, or the sign of its kind. */
function Sign({ one }: { one: MaterialShape }) {
  if (one.file?.mime.startsWith('image/'))
    return (
      <Picture
        src={`/api/files/${one.file.assetId}?width=160`}
        alt=""
        loading="lazy"
        className="size-9 object-cover rounded-md border border-line shrink-0"
      />
    );
  const Kind = one.file ? FileText : one.url !== null ? LinkIcon : Quote;
  return (
    <span className="size-9 grid place-items-center rounded-md bg-sunk text-muted shrink-0">
      <Kind size={16} aria-hidden />
    </span>
  );
}

function AddDialog({ pieceId, onClose }: { pieceId: string; onClose: () => void }) {
  const [is, setIs] = useState<'link' | 'words'>('link');
  const add = useWrite((body: MaterialBody) => call<MaterialMadeShape>(`/pieces/${pieceId}/material`, { method: 'POST', body }), {
    quiet: true,
  });
  const form = useBodyForm<MaterialBody>(
    MaterialBody,
    { sort: 'reference', label: '' },
    {
      send: async (body) => {
        await add.mutateAsync(body);
        onClose();
      },
      words: { url: { isUrl: 'A whole address, such as https://example.org/folder.' }, text: { isNotBlank: 'Nothing is written yet.' } },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog form={form} onClose={onClose} title="Add to the material" action="Add">
      <div className="mb-3.5">
        <Choice
          label="What it is"
          value={is}
          options={[
            ['link', 'A link'],
            ['words', 'Words'],
          ]}
          onChange={(next) => {
            setIs(next);
            change({ url: undefined, text: undefined, sort: next === 'words' ? 'transcript' : 'reference' });
          }}
        />
      </div>
      {is === 'link' ? (
        <LinkField value={body.url ?? null} onChange={(url) => change({ url: url ?? undefined })} error={errorOf('url')} />
      ) : (
        <TextField
          label="Words"
          rows={8}
          maxLength={100_000}
          value={body.text ?? ''}
          onChange={(text) => change({ text })}
          error={errorOf('text')}
        />
      )}
      <div className="mb-3.5">
        <Choice label="It is" value={body.sort} options={SORTS} onChange={(sort) => change({ sort })} />
      </div>
      <TextField
        label="What it shows"
        help="May be left empty."
        maxLength={200}
        value={body.label}
        onChange={(label) => change({ label })}
        error={errorOf('label')}
      />
    </FormDialog>
  );
}
