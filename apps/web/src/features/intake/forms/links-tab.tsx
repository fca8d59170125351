import {
  type FormLinkBody,
  NewFormLinkBody,
  type ChangeFormLinkBody,
  type FormLinkMadeShape,
  type FormShape,
  type IntakeLinkShape,
} from '@zesting/contract';
import { Copy, Download } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../../lib/api';
import { count } from '../../../lib/format';
import { useClients, useWrite } from '../../../lib/queries';
import { useBodyForm } from '../../../lib/use-body-form';
import { useOpened } from '../../../lib/use-opened';
import { Button, buttonClass } from '../../../ui/button';
import { Dialog } from '../../../ui/dialog';
import { Field } from '../../../ui/field';
import { FormDialog } from '../../../ui/form-dialog';
import { Empty } from '../../../ui/page';
import { ClientCode, Tag } from '../../../ui/tags';

/** The addresses under which the form asks, each with where it was handed out and how many requests came by it. */
export function LinksTab({ form }: { form: FormShape }) {
  const { opened, open, close } = useOpened();
  const edited = form.links.find(({ id }) => opened === `link-${id}`);
  return (
    <>
      {form.links.length === 0 ? (
        <Empty title="No link yet">
          {form.publishedVersion === null
            ? 'Publish the form first, then hand out a link to it.'
            : 'Whoever has a link can ask through the form; no password is needed.'}
        </Empty>
      ) : (
        <ul className="grid gap-2">
          {form.links.map((link) => (
            <LinkCard key={link.id} form={form} link={link} onEdit={() => open(`link-${link.id}`)} />
          ))}
        </ul>
      )}
      {form.canEdit && form.publishedVersion !== null && (
        <Button className="mt-3" disabled={form.clientIds.length === 0} onClick={() => open('new-link')}>
          Make a link
        </Button>
      )}
      {form.clientIds.length === 0 && <p className="text-muted mt-2">The form is for no client yet: tick one under Settings.</p>}
      {opened === 'new-link' && <LinkDialog form={form} onClose={close} />}
      {edited && <LinkDialog form={form} link={edited} onClose={close} />}
    </>
  );
}

const CHANGE_WORDS: Record<ChangeFormLinkBody['change'], { title: string; effect: string }> = {
  renew: { title: 'Renew the link', effect: 'The one that was handed out opens nothing any more, and there is a new one to hand out.' },
  close: { title: 'Close the link', effect: 'Nobody can ask by it any more until it is renewed. What came by it stays.' },
};

function LinkCard({ form, link, onEdit }: { form: FormShape; link: IntakeLinkShape; onEdit: () => void }) {
  const { clientOf } = useClients();
  const client = clientOf(link.clientId);
  const [asked, setAsked] = useState<ChangeFormLinkBody['change']>();
  const change = useWrite((body: ChangeFormLinkBody) => call(`/forms/${form.id}/links/${link.id}/change`, { method: 'POST', body }));
  const copy = (text: string, words: string) => void navigator.clipboard.writeText(text).then(() => toast(words));
  const path = `/api/forms/${form.id}/links/${link.id}/qr`;
  return (
    <li className="card p-3">
      <div className="flex flex-wrap items-center gap-2">
        <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} />
        <span className="font-medium">{link.label}</span>
        {link.address === null && <Tag tone="rind">Closed</Tag>}
        <span className="text-muted text-[13px]">{link.requests === 0 ? 'nothing came by it yet' : count(link.requests, 'request')}</span>
        {form.canEdit && (
          <span className="ml-auto flex gap-1">
            <Button look="quiet" onClick={onEdit} aria-label={`Edit: ${link.label}`}>
              Edit…
            </Button>
            <Button look="quiet" onClick={() => setAsked('renew')} aria-label={`Renew: ${link.label}`}>
              Renew…
            </Button>
            {link.address !== null && (
              <Button look="quiet" onClick={() => setAsked('close')} aria-label={`Close: ${link.label}`}>
                Close…
              </Button>
            )}
          </span>
        )}
      </div>
      {link.address !== null && (
        <>
          <a href={link.address} className="block truncate text-pine underline leading-8">
            {link.address}
          </a>
          <div className="flex flex-wrap gap-1">
            <Button look="quiet" onClick={() => copy(link.address ?? '', 'The link is copied')}>
              <Copy size={14} aria-hidden /> Copy the link
            </Button>
            <a className={buttonClass('quiet')} href={`${path}?type=png`} download>
              <Download size={14} aria-hidden /> QR code, PNG
            </a>
            <a className={buttonClass('quiet')} href={`${path}?type=svg`} download>
              <Download size={14} aria-hidden /> QR code, SVG
            </a>
            {link.origins.length > 0 && (
              <Button
                look="quiet"
                onClick={() => copy(embedCode(link.address ?? '', form.content.title), 'The code is copied: put it into the page')}
              >
                <Copy size={14} aria-hidden /> Copy the code to embed it
              </Button>
            )}
          </div>
          {link.origins.length > 0 && <p className="text-muted text-[13px]">Can be embedded on {link.origins.join(', ')}</p>}
        </>
      )}
      {asked && (
        <Dialog
          open
          onClose={() => setAsked(undefined)}
          title={`${CHANGE_WORDS[asked].title}: ${link.label}?`}
          description={CHANGE_WORDS[asked].effect}
        >
          <div className="flex justify-end gap-2">
            <Button onClick={() => setAsked(undefined)}>Leave it</Button>
            <Button
              look="danger"
              disabled={change.isPending}
              onClick={() => change.mutate({ change: asked }, { onSuccess: () => setAsked(undefined) })}
            >
              {CHANGE_WORDS[asked].title}
            </Button>
          </div>
        </Dialog>
      )}
    </li>
  );
}

/** What a page of another site holds to show the form. */
export const embedCode = (address: string, title: string): string =>
  `<iframe src="${address}?embedded" title="${title.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`)}" style="width:100%;height:50rem;border:0"></iframe>`;

/** Makes a link, or says anew where one was handed out and which sites may embed the form by it. */
function LinkDialog({ form, link, onClose }: { form: FormShape; link?: IntakeLinkShape; onClose: () => void }) {
  const { clientOf } = useClients();
  const save = useWrite(
    (body: NewFormLinkBody): Promise<unknown> => {
      const { clientId: _, ...rest } = body;
      return link
        ? call(`/forms/${form.id}/links/${link.id}`, { method: 'PATCH', body: rest satisfies FormLinkBody })
        : call<FormLinkMadeShape>(`/forms/${form.id}/links`, { method: 'POST', body });
    },
    { quiet: true },
  );
  const [sites, setSites] = useState(link?.origins.join('\n') ?? '');
  const dialog = useBodyForm<NewFormLinkBody>(
    NewFormLinkBody,
    { clientId: link?.clientId ?? form.clientIds[0] ?? '', label: link?.label ?? '', origins: link?.origins ?? [] },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        onClose();
      },
      words: {
        label: { isNotBlank: 'Say where it is handed out.' },
        origins: { matches: 'Write each as https://www.example.test, with nothing after it.' },
      },
    },
  );
  const { body, change, errorOf } = dialog;
  return (
    <FormDialog
      form={dialog}
      onClose={onClose}
      title={link ? `The link “${link.label}”` : 'Make a link'}
      action={link ? 'Save' : 'Make it'}
    >
      {!link && (
        <Field label="For the client">
          {(control) => (
            <select {...control} className="field" value={body.clientId} onChange={(event) => change({ clientId: event.target.value })}>
              {form.clientIds.map((id) => (
                <option key={id} value={id}>
                  {clientOf(id)?.name}
                </option>
              ))}
            </select>
          )}
        </Field>
      )}
      <Field label="Handed out" required error={errorOf('label')} help="So that you know which it was: “Newsletter of May”, “Shop window”.">
        {(control) => (
          <input {...control} className="field" value={body.label} onChange={(event) => change({ label: event.target.value })} />
        )}
      </Field>
      <Field label="Sites that may embed it" error={errorOf('origins')} help="One per line. Empty: it opens on its own page only.">
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={2}
            placeholder="https://www.example.test"
            value={sites}
            onChange={(event) => {
              setSites(event.target.value);
              change({
                origins: event.target.value
                  .split(/\s+/)
                  .map((line) => line.trim().toLowerCase().replace(/\/$/, ''))
                  .filter(Boolean),
              });
            }}
          />
        )}
      </Field>
    </FormDialog>
  );
}
