import { KeptFileBody, NewKeptFileBody, type KeptFileMadeShape, type KeptFileShape, type UploadShape } from '@zesting/contract';
import { KEPT_FILE_KINDS } from '@zesting/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { titleOfName, KEPT_WORDS } from '../../lib/kept-file-words';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { useUploads } from '../../lib/use-uploads';
import { ClientField } from '../../parts/client-field';
import { Button } from '../../ui/button';
import { DayField } from '../../ui/day-field';
import { FormDialog } from '../../ui/form-dialog';
import { ChoiceField } from '../../ui/option-field';
import { PickFiles } from '../../ui/pick-files';
import { Picture } from '../../ui/picture';
import { TextField } from '../../ui/text-field';
import { UploadList } from '../../ui/upload-list';

const WORDS = {
  title: { isNotBlank: 'Say what it is.' },
  assetId: { isUuid: 'Bring the file first.' },
} as const;

/** Keeps a file for a client: it is brought, and said what it is. */
export function NewKeptFileDialog({ onClose }: { onClose: () => void }) {
  const { client, clients } = useClients();
  const [clientId, setClientId] = useState(client?.id ?? clients[0]?.id ?? '');
  const [file, setFile] = useState<UploadShape>();
  const save = useWrite((body: NewKeptFileBody) => call<KeptFileMadeShape>(`/clients/${clientId}/kept-files`, { method: 'POST', body }), {
    quiet: true,
  });
  const form = useBodyForm<NewKeptFileBody>(
    NewKeptFileBody,
    { assetId: '', kind: 'product', title: '', about: '', renewBy: null },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast('Kept.');
        onClose();
      },
      words: WORDS,
    },
  );
  const { body, change, errorOf } = form;
  const uploads = useUploads(`/clients/${clientId}/kept-uploads`, (brought) => {
    setFile(brought);
    change({ assetId: brought.assetId, ...(body.title.trim() === '' ? { title: titleOfName(brought.name) } : {}) });
  });
  const isBusy = uploads.list.length > 0;
  return (
    <FormDialog form={{ ...form, busy: form.busy || isBusy }} onClose={onClose} title="Keep a file" action="Keep it">
      {!client && !file && !isBusy && <ClientField clientId={clientId} required onChange={setClientId} />}
      <Brought file={file} />
      <UploadList uploads={uploads} />
      {!isBusy && (
        <PickFiles label="The file" className="mb-3" onPick={(files) => uploads.add(files.slice(0, 1))}>
          {file ? 'Another file instead' : 'Choose the file'}
        </PickFiles>
      )}
      {errorOf('assetId') && (
        <p role="alert" className="text-rhubarb text-[13px] font-medium mb-2">
          {errorOf('assetId')}
        </p>
      )}
      <Said form={form} />
    </FormDialog>
  );
}

/** Changes what is said of a kept file, puts a newer one in its place, or puts it away. */
export function KeptFileDialog({ file, onClose }: { file: KeptFileShape; onClose: () => void }) {
  const [newer, setNewer] = useState<UploadShape>();
  const uploads = useUploads(`/clients/${file.clientId}/kept-uploads`, setNewer);
  const save = useWrite(
    (body: KeptFileBody) =>
      call(`/kept-files/${file.id}`, {
        method: 'PUT',
        body: newer ? { ...body, assetId: newer.assetId } : body,
        version: file.version,
      }),
    { quiet: true },
  );
  const away = useWrite(() => call(`/kept-files/${file.id}/archive`, { method: 'POST', body: { archived: true } }));
  const form = useBodyForm<KeptFileBody>(
    KeptFileBody,
    { kind: file.kind, title: file.title, about: file.about, renewBy: file.renewBy },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast(newer ? 'Renewed. Pieces that have the older one keep it, and it is called old there.' : 'Changed.');
        onClose();
      },
      words: WORDS,
    },
  );
  const isBusy = uploads.list.length > 0;
  return (
    <FormDialog
      form={{ ...form, busy: form.busy || isBusy }}
      onClose={onClose}
      title="Change the file"
      action={newer ? 'Renew it' : 'Change it'}
      beside={
        <Button disabled={away.isPending} onClick={() => away.mutate(undefined, { onSuccess: onClose })}>
          Put it away
        </Button>
      }
    >
      <Brought file={newer ?? file} />
      <UploadList uploads={uploads} />
      {!isBusy && (
        <PickFiles label="A newer file" className="mb-3" onPick={(files) => uploads.add(files.slice(0, 1))}>
          {newer ? 'Another one instead' : 'Bring a newer file'}
        </PickFiles>
      )}
      {newer && <p className="text-rind text-[13px] mb-2">Say below by when this one is to be renewed.</p>}
      <Said form={form} />
    </FormDialog>
  );
}

function Brought({ file }: { file: Pick<UploadShape, 'assetId' | 'mime' | 'name'> | undefined }) {
  if (!file) return null;
  return (
    <div className="flex items-center gap-3 mb-2">
      {file.mime.startsWith('image/') && (
        <Picture src={`/api/files/${file.assetId}?width=480`} alt="" className="h-24 max-w-40 object-contain rounded-md bg-sunk" />
      )}
      <span className="min-w-0 break-words text-[13px]">{file.name}</span>
    </div>
  );
}

interface SaidForm {
  readonly body: KeptFileBody;
  readonly change: (part: Partial<KeptFileBody>) => void;
  readonly errorOf: (name: 'title' | 'about' | 'renewBy') => string | undefined;
}

/** What it is, what can be seen, and by when it is to be renewed. */
function Said({ form: { body, change, errorOf } }: { form: SaidForm }) {
  const { todayOn } = useSession();
  return (
    <>
      <div className="grid sm:grid-cols-2 gap-x-3">
        <ChoiceField
          label="What it is"
          value={body.kind}
          options={KEPT_FILE_KINDS.map((id) => ({ id, name: KEPT_WORDS[id].one }))}
          onChange={(id) => change({ kind: KEPT_FILE_KINDS.find((kind) => kind === id) ?? 'other' })}
        />
        <DayField
          label="To be renewed by"
          help="Its managers are told two weeks before. Empty: it is good for good."
          error={errorOf('renewBy')}
          todayOn={todayOn}
          value={body.renewBy ?? ''}
          onChange={(on) => change({ renewBy: on || null })}
        />
      </div>
      <TextField
        label="Title"
        required
        maxLength={120}
        error={errorOf('title')}
        value={body.title}
        onChange={(title) => change({ title })}
      />
      <TextField
        label="What can be seen or heard"
        help="Where it goes out, the alternative text begins with it."
        rows={2}
        maxLength={1000}
        error={errorOf('about')}
        value={body.about}
        onChange={(about) => change({ about })}
      />
    </>
  );
}
