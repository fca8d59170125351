import { useQuery } from '@tanstack/react-query';
import { PhraseBody, type ClientPageShape, type PhraseShape } from '@zesting/contract';
import { PHRASE_KINDS, type PhraseKind } from '@zesting/core';
import { Plus } from 'lucide-react';
import { toast } from 'sonner';
import { phrasesQuery } from '../../api/library';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { KIND_WORDS, shortPhrase } from '../../lib/phrase-words';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { OptionField } from '../../ui/option-field';
import { Empty, Failed, Loading } from '../../ui/page';
import { PutAway } from '../../ui/put-away';
import { TextField } from '../../ui/text-field';

/** First lines, last lines, calls to action and texts to start from: put into a copy with one press. */
export function PhrasesSection({ client }: { client: ClientPageShape }) {
  const found = useQuery(phrasesQuery(client.id));
  const { opened, open, close } = useOpened();
  const restore = useWrite((id: string) => call(`/phrases/${id}/archive`, { method: 'POST', body: { archived: false } }));
  const phrases = found.data?.phrases ?? [];
  const edited = phrases.find(({ id }) => opened === `phrase-${id}`);
  return (
    <section aria-labelledby="phrases">
      <div className="flex flex-wrap items-center gap-3 mb-1">
        <h2 id="phrases" className="text-lg">
          Phrases
        </h2>
        <Button className="ml-auto" onClick={() => open('new-phrase')}>
          <Plus size={15} aria-hidden /> New phrase
        </Button>
      </div>
      <p className="text-muted mb-3 max-w-3xl">
        Openings, closings, calls to action and texts to start from: put in with one press where a piece is written, those for its pillar
        first and of these the ones that rested longest.
      </p>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && phrases.length === 0 && (
        <Empty title="No phrase is kept yet">Keep a first line that drew people in, or what they are asked to do at the end.</Empty>
      )}
      {PHRASE_KINDS.map((kind) => (
        <Kind key={kind} kind={kind} phrases={phrases.filter((phrase) => phrase.kind === kind)} onEdit={(id) => open(`phrase-${id}`)} />
      ))}
      <div className="mt-3">
        <PutAway
          items={(found.data?.archived ?? []).map(({ id, text }) => ({ id, name: shortPhrase(text) }))}
          title="Put away"
          action="take back"
          onBack={(id) => restore.mutate(id)}
        />
      </div>
      {opened === 'new-phrase' && <PhraseDialog client={client} phrase={undefined} onClose={close} />}
      {edited && <PhraseDialog key={edited.id} client={client} phrase={edited} onClose={close} />}
    </section>
  );
}

function Kind({ kind, phrases, onEdit }: { kind: PhraseKind; phrases: readonly PhraseShape[]; onEdit: (id: string) => void }) {
  if (phrases.length === 0) return null;
  return (
    <section aria-label={KIND_WORDS[kind].many} className="card max-w-4xl mb-3">
      <h3 className="text-base px-4 pt-2.5">{KIND_WORDS[kind].many}</h3>
      <ul>
        {phrases.map((phrase) => (
          <li key={phrase.id} className="flex items-start gap-3 px-4 py-2.5 border-t border-line first:border-t-0">
            <div className="min-w-0 flex-1">
              <p className="break-words whitespace-pre-wrap">{phrase.text}</p>
              <p className="text-muted text-[13px]">
                {[phrase.pillarName && `For ${phrase.pillarName}`, usedWords(phrase)].filter(Boolean).join('. ')}
              </p>
            </div>
            <Button look="quiet" aria-label={`Change… “${shortPhrase(phrase.text)}”`} onClick={() => onEdit(phrase.id)}>
              Change…
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const usedWords = ({ used, lastAt }: PhraseShape): string =>
  used === 0 ? 'Not used yet' : `In ${count(used, 'piece')}, last on ${dayWords((lastAt ?? '').slice(0, 10))}`;

function PhraseDialog({ client, phrase, onClose }: { client: ClientPageShape; phrase: PhraseShape | undefined; onClose: () => void }) {
  const save = useWrite(
    (body: PhraseBody) =>
      phrase
        ? call(`/phrases/${phrase.id}`, { method: 'PUT', body, version: phrase.version })
        : call(`/clients/${client.id}/phrases`, { method: 'POST', body }),
    { quiet: true },
  );
  const away = useWrite(() => call(`/phrases/${phrase?.id ?? ''}/archive`, { method: 'POST', body: { archived: true } }));
  const form = useBodyForm<PhraseBody>(
    PhraseBody,
    { kind: phrase?.kind ?? 'opening', text: phrase?.text ?? '', pillarId: phrase?.pillarId ?? null },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast(phrase ? 'Changed.' : 'Kept.');
        onClose();
      },
      words: { text: { isNotBlank: 'Write it down.' } },
    },
  );
  const { body, change, errorOf } = form;
  const pillars = client.pillars.flatMap(({ id, name }) => (id ? { id, name } : []));
  const kept = phrase?.pillarId && !pillars.some(({ id }) => id === phrase.pillarId);
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={phrase ? 'Change the phrase' : 'New phrase'}
      action={phrase ? 'Change it' : 'Keep it'}
      beside={
        phrase && (
          <Button disabled={away.isPending} onClick={() => away.mutate(undefined, { onSuccess: onClose })}>
            Put it away
          </Button>
        )
      }
    >
      <div className="grid sm:grid-cols-2 gap-x-3">
        <Field label="What it is">
          {(control) => (
            <select
              {...control}
              className="field"
              value={body.kind}
              onChange={({ target }) => change({ kind: PHRASE_KINDS.find((kind) => kind === target.value) ?? 'opening' })}
            >
              {PHRASE_KINDS.map((kind) => (
                <option key={kind} value={kind}>
                  {KIND_WORDS[kind].one}
                </option>
              ))}
            </select>
          )}
        </Field>
        <OptionField
          label="For the pillar"
          none="Any"
          error={errorOf('pillarId')}
          value={body.pillarId}
          options={kept ? [...pillars, { id: phrase.pillarId ?? '', name: phrase.pillarName ?? '' }] : pillars}
          onChange={(pillarId) => change({ pillarId })}
        />
      </div>
      <TextField
        label="Words"
        required
        rows={body.kind === 'template' ? 8 : 3}
        maxLength={5000}
        error={errorOf('text')}
        value={body.text}
        onChange={(text) => change({ text })}
      />
    </FormDialog>
  );
}
