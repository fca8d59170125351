import { useQuery } from '@tanstack/react-query';
import type { TakeDownBody, TakenDownShape } from '@zesting/contract';
import { checkAnswers, fieldsOf, getDay, isEmailLike, type AnswerProblem, type Answers } from '@zesting/core';
import { useState, type FormEvent } from 'react';
import { askableQuery } from '../../api/requests';
import { AskedItems } from '../../asked/asked-items';
import { problemWords } from '../../asked/problem-words';
import { LANGUAGES } from '../../language/language';
import { ApiProblem, call, wordsOf } from '../../lib/api';
import { useClients, useWrite } from '../../lib/queries';
import { ClientField } from '../../parts/client-field';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { Loading } from '../../ui/page';
import { AskedFormField } from './asked-form-field';

const nothing = () => undefined;

/** Takes a request down on the client's form, for a contact or for somebody without an address. */
export function TakeDownDialog({ onClose, onTaken }: { onClose: () => void; onTaken: (requestId: string) => void }) {
  const { clients, client } = useClients();
  const [clientId, setClientId] = useState(client?.id ?? clients[0]?.id ?? '');
  const { data: forms } = useQuery({ ...askableQuery(clientId), enabled: clientId !== '' });
  const [formId, setFormId] = useState('');
  const form = forms?.find((one) => one.formId === formId) ?? forms?.[0];
  const [who, setWho] = useState({ name: '', email: '' });
  const [answers, setAnswers] = useState<Answers>({});
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const [failure, setFailure] = useState<string>();
  const [key] = useState(() => crypto.randomUUID());
  const take = useWrite(
    (body: TakeDownBody) => call<TakenDownShape>(`/requests/taken-down/${clientId}`, { method: 'POST', body, idempotencyKey: key }),
    { quiet: true },
  );
  const contacts = clients.find(({ id }) => id === clientId)?.contacts ?? [];
  const show = (page: HTMLElement, found: Readonly<Record<string, string>>) => {
    setProblems(found);
    requestAnimationFrame(() => page.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus());
  };
  const inWords = (found: Readonly<Record<string, AnswerProblem>>) => {
    const fields = new Map(fieldsOf(form?.items ?? []).map((field) => [field.key, field]));
    return Object.fromEntries(
      Object.entries(found).flatMap(([name, problem]) =>
        fields.get(name)
          ? [[name, problemWords(problem, fields.get(name) ?? { key: name, kind: 'short', label: name }, LANGUAGES.en)]]
          : [],
      ),
    );
  };
  const send = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    if (!form || take.isPending) return;
    const page = event.currentTarget;
    const checked = checkAnswers(form.items, answers, { todayOn: getDay(form.todayOn) });
    const found = {
      ...inWords(checked.problems),
      ...(who.name.trim() === '' ? { name: 'Say who asks.' } : {}),
      ...(who.email.trim() === '' || isEmailLike(who.email.trim()) ? {} : { email: 'This is not an e-mail address.' }),
    };
    if (Object.keys(found).length > 0) return show(page, found);
    setFailure(undefined);
    try {
      const email = who.email.trim() === '' ? null : who.email.trim();
      const { requestId } = await take.mutateAsync({ formId: form.formId, name: who.name.trim(), email, answers: checked.answers });
      onTaken(requestId);
    } catch (problem) {
      if (problem instanceof ApiProblem && problem.code === 'request.answers_wrong')
        show(page, inWords(problem.errors as Record<string, AnswerProblem>));
      setFailure(wordsOf(problem));
    }
  };
  return (
    <Dialog open onClose={onClose} title="Take a request down" description="On the client’s form, while you are on the telephone." wide>
      <form noValidate onSubmit={(event) => void send(event)}>
        <div className="grid sm:grid-cols-2 gap-x-4">
          <ClientField clientId={clientId} onChange={setClientId} />
          <AskedFormField forms={forms} form={form} onChange={setFormId} />
          <Field label="Who asks" required error={problems['name']}>
            {(control) => (
              <input
                {...control}
                className="field"
                list="contacts-of-client"
                value={who.name}
                onChange={(event) => {
                  const name = event.target.value;
                  const contact = contacts.find((one) => one.name === name);
                  setWho({ name, email: contact?.email ?? who.email });
                }}
              />
            )}
          </Field>
          <Field label="Their e-mail" error={problems['email']} help="Empty where they have none: then they hear nothing by mail.">
            {(control) => (
              <input
                {...control}
                className="field"
                type="email"
                value={who.email}
                onChange={(event) => setWho({ ...who, email: event.target.value })}
              />
            )}
          </Field>
        </div>
        <datalist id="contacts-of-client">
          {contacts.map(({ id, name }) => (
            <option key={id} value={name} />
          ))}
        </datalist>
        <hr className="border-line mb-4" />
        {!forms ? (
          <Loading />
        ) : !form ? (
          <p className="text-muted mb-4">No form of this client asks anything yet.</p>
        ) : (
          <AskedItems
            items={form.items}
            answers={answers}
            problems={problems}
            onAnswer={(name, answer) => setAnswers({ ...answers, [name]: answer })}
            todayOn={form.todayOn}
            earliestOn={null}
            noticeOn={null}
            files={{}}
            uploadTo={null}
            onFile={nothing}
            onUnderWay={nothing}
          />
        )}
        {failure && (
          <p role="alert" className="text-rhubarb font-medium mb-3">
            {failure}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Not now</Button>
          <Button look="main" type="submit" disabled={!form || take.isPending}>
            Take it down
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
