import { NewFormBody, type FormMadeShape } from '@zesting/contract';
import type { FormDocument } from '@zesting/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { ApiProblem, call } from '../../../lib/api';
import { useClients, useWrite } from '../../../lib/queries';
import { useBodyForm } from '../../../lib/use-body-form';
import { Field } from '../../../ui/field';
import { FormDialog } from '../../../ui/form-dialog';

interface NewFormProps {
  /** names of the starting forms */
  readonly stock?: readonly string[];
  readonly copyOf?: { readonly id: string; readonly title: string };
  readonly onClose: () => void;
  readonly onMade: (formId: string) => void;
}

const EMPTY = 'empty';
const FILE = 'file';

/** Begins a form: from a starting one, from a file, empty, or as a copy. */
export function NewFormDialog({ stock = [], copyOf, onClose, onMade }: NewFormProps) {
  const { clients, client } = useClients();
  const [from, setFrom] = useState(copyOf ? '' : (stock[0] ?? EMPTY));
  const [file, setFile] = useState<{ document?: FormDocument; wrong?: string }>({});
  const make = useWrite((body: NewFormBody) => call<FormMadeShape>('/forms', { method: 'POST', body }), { quiet: true });
  const dialog = useBodyForm<NewFormBody>(
    NewFormBody,
    { title: copyOf ? `Copy of ${copyOf.title}` : '', clientIds: client ? [client.id] : [] },
    {
      send: async (body) => {
        const source = copyOf ? { copyOf: copyOf.id } : from === FILE ? { document: file.document } : from === EMPTY ? {} : { stock: from };
        if (from === FILE && !file.document) return setFile({ wrong: file.wrong ?? 'Choose a file.' });
        try {
          const { formId, unknown } = await make.mutateAsync({ ...body, ...(source as Partial<NewFormBody>) });
          if (unknown.length > 0) toast(`Not known here, and left open: ${unknown.join(', ')}`);
          onMade(formId);
        } catch (problem) {
          if (!(problem instanceof ApiProblem) || problem.code !== 'form.malformed') throw problem;
          const [fault] = problem.body['faults'] as { at: string; message: string }[];
          setFile({ wrong: `This file is no form of Zesting: ${fault?.at || 'at its beginning'} ${fault?.message ?? ''}.` });
        }
      },
      words: { title: { isNotBlank: 'A form needs a title.' } },
    },
  );
  const { body, change, errorOf } = dialog;
  const read = async (chosen: File | undefined) => {
    if (!chosen) return;
    try {
      const document = JSON.parse(await chosen.text()) as FormDocument; // the server checks its shape
      setFile({ document });
      if (body.title === '' && typeof document.title === 'string') change({ title: document.title });
    } catch {
      setFile({ wrong: 'This file holds no JSON that can be read.' });
    }
  };
  return (
    <FormDialog form={dialog} onClose={onClose} title={copyOf ? 'Copy this form' : 'New form'} action={copyOf ? 'Copy it' : 'Begin it'}>
      {!copyOf && (
        <Field label="Begin with" error={from === FILE ? file.wrong : undefined}>
          {(control) => (
            <>
              <select {...control} className="field" value={from} onChange={(event) => setFrom(event.target.value)}>
                {stock.map((name) => (
                  <option key={name} value={name}>
                    {name}
                  </option>
                ))}
                <option value={EMPTY}>One question, the rest is yours</option>
                <option value={FILE}>A file (JSON)</option>
              </select>
              {from === FILE && (
                <input
                  type="file"
                  accept="application/json,.json"
                  aria-label="File of a form"
                  className="field py-2 mt-2"
                  onChange={(event) => void read(event.target.files?.[0])}
                />
              )}
            </>
          )}
        </Field>
      )}
      <Field label="Title" required error={errorOf('title')} help="Clients read it at the top of the form.">
        {(control) => (
          <input {...control} className="field" value={body.title} onChange={(event) => change({ title: event.target.value })} />
        )}
      </Field>
      <Field label="For the client" help="More can be added later.">
        {(control) => (
          <select
            {...control}
            className="field"
            value={body.clientIds[0] ?? ''}
            onChange={(event) => change({ clientIds: event.target.value === '' ? [] : [event.target.value] })}
          >
            <option value="">None yet</option>
            {clients.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
      </Field>
    </FormDialog>
  );
}
