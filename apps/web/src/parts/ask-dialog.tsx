import { useQuery } from '@tanstack/react-query';
import { AskInterviewBody, type InterviewMadeShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { clientPageQuery } from '../api/clients';
import { questionSetsQuery, type AskedAbout } from '../api/interviews';
import { call } from '../lib/api';
import { count } from '../lib/format';
import { useClients, useDaysOff, useSession, useWrite } from '../lib/queries';
import { useBodyForm } from '../lib/use-body-form';
import { DayField } from '../ui/day-field';
import { FormDialog } from '../ui/form-dialog';
import { OptionField } from '../ui/option-field';
import { LinesField, TextField } from '../ui/text-field';
import { ClientField } from './client-field';

interface AskDialogProps {
  readonly clientId: string;
  /** what it is about, and what that is called; without it, the client itself, which can be chosen */
  readonly about?: { readonly of: AskedAbout; readonly title: string };
  readonly onClose: () => void;
}

/** Puts questions to a contact, who answers in the room, or to somebody whose answers the team writes down. */
export function AskDialog({ clientId: first, about, onClose }: AskDialogProps) {
  const { todayOn } = useSession();
  const { clientOf } = useClients();
  const [clientId, setClientId] = useState(first);
  const page = useQuery(clientPageQuery(clientId));
  const of = about ? new URLSearchParams({ ...about.of }).toString() : '';
  const sets = useQuery(questionSetsQuery(`clientId=${clientId}&${of}`));
  // a set that is chosen makes the field of the questions anew
  const [set, setSet] = useState<{ readonly id: string; readonly questions: readonly string[] }>();
  const off = useDaysOff({ clientId });
  const ask = useWrite((body: AskInterviewBody) => call<InterviewMadeShape>(`/clients/${clientId}/interviews`, { method: 'POST', body }), {
    quiet: true,
  });
  const form = useBodyForm<AskInterviewBody>(
    AskInterviewBody,
    { title: about?.title ?? '', contactId: null, answerer: '', dueOn: null, questions: [], ...(about?.of ?? {}) },
    {
      send: async (body) => {
        await ask.mutateAsync(body);
        toast(
          body.contactId === null
            ? 'Write the answers down as you hear them'
            : `${count(body.questions.length, 'question')} sent to ${contacts.find(({ id }) => id === body.contactId)?.name}`,
        );
        onClose();
      },
      words: { questions: { arrayMinSize: 'Ask at least one, a line each.', arrayMaxSize: 'Thirty at most.' } },
    },
  );
  const { body, change, errorOf } = form;
  const contacts = (page.data?.contacts ?? []).flatMap(({ id, name }) => (id ? [{ id, name }] : []));
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="Ask who knows"
      description={about ? `About “${about.title}”.` : 'What you want to know for the client.'}
      action={body.contactId === null ? 'Keep the questions' : 'Send the questions'}
    >
      {!about && (
        <ClientField
          clientId={clientId}
          required
          onChange={(next) => {
            setClientId(next);
            change({ contactId: null });
          }}
        />
      )}
      <TextField
        label="What it is about"
        required
        error={errorOf('title')}
        maxLength={150}
        value={body.title}
        onChange={(title) => change({ title })}
      />
      {sets.data && sets.data.sets.length > 0 && (
        <OptionField
          label="Questions kept"
          none="None of them"
          value={set?.id ?? null}
          options={sets.data.sets.map(({ id, title, fits, treatment }) => ({
            id,
            name: `${title}${fits ? ` (fits: ${treatment})` : treatment ? ` (${treatment})` : ''}`,
          }))}
          onChange={(id) => {
            const chosen = sets.data.sets.find((one) => one.id === id);
            setSet(chosen && { id: chosen.id, questions: chosen.questions });
            if (chosen) change({ questions: [...chosen.questions] });
          }}
        />
      )}
      <LinesField
        key={set?.id ?? 'none'}
        label="Questions, one on each line"
        required
        error={errorOf('questions')}
        rows={6}
        lines={set?.questions ?? body.questions}
        onChange={(questions) => change({ questions })}
      />
      <div className="grid sm:grid-cols-2 gap-x-3">
        <OptionField
          label="Whom"
          none="Somebody else"
          value={body.contactId}
          options={contacts}
          error={errorOf('contactId')}
          onChange={(contactId) => change({ contactId })}
        />
        {body.contactId === null ? (
          <TextField
            label="Who that is"
            help="You write down what they say."
            maxLength={100}
            value={body.answerer ?? ''}
            onChange={(answerer) => change({ answerer })}
          />
        ) : (
          <p className="text-muted text-[13px] self-center mb-3.5">
            They get a mail and answer in their room of {clientOf(clientId)?.name}.
          </p>
        )}
        <DayField
          label="By"
          {...(body.contactId ? { help: 'Reminded half-way and on the day; past it you hear.' } : {})}
          value={body.dueOn ?? ''}
          todayOn={todayOn}
          min={todayOn}
          off={off}
          error={errorOf('dueOn')}
          onChange={(on) => change({ dueOn: on || null })}
        />
      </div>
    </FormDialog>
  );
}
