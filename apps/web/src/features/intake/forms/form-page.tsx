import { useQuery } from '@tanstack/react-query';
import type { FormShape } from '@zesting/contract';
import { Redo2, Undo2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { formQuery } from '../../../api/forms';
import type { Answers } from '@zesting/core';
import { ApiProblem, call, wordsOf } from '../../../lib/api';
import { useClients, useTouched, useWrite } from '../../../lib/queries';
import { useOpened } from '../../../lib/use-opened';
import { useSearch } from '../../../lib/use-search';
import { Button, buttonClass, IconButton } from '../../../ui/button';
import { Dialog } from '../../../ui/dialog';
import { Menu, MenuItem } from '../../../ui/menu';
import { Failed, Loading, PageHead } from '../../../ui/page';
import { Tabs } from '../../../ui/tabs';
import { Tag } from '../../../ui/tags';
import { LinksTab } from './links-tab';
import { NewFormDialog } from './new-form-dialog';
import { Preview } from './preview';
import { QuestionsTab } from './questions-tab';
import { RulesTab } from './rules-tab';
import { SettingsTab } from './settings-tab';
import { useFormDraft, type FormDraft } from './use-form-draft';
import { VersionsTab } from './versions-tab';
import { faultWords } from './words';

const PARTS = ['questions', 'settings', 'rules', 'links', 'versions'] as const;

/** One form: its questions, what is set around them, sorting rules, links and versions, with the real form beside. */
export function FormPage() {
  const { formId = '' } = useParams();
  const form = useQuery(formQuery(formId));
  if (form.isError) return <Failed message={wordsOf(form.error)} onRetry={() => void form.refetch()} />;
  if (!form.data) return <Loading />;
  return <Editing key={form.data.id} form={form.data} />;
}

function Editing({ form }: { form: FormShape }) {
  const { to } = useClients();
  const { search, put } = useSearch();
  const draft = useFormDraft(form);
  const [chosen, setChosen] = useState<string | null>(null);
  const [sample, setSample] = useState<Answers>({});
  const part = PARTS.find((name) => name === search.get('part')) ?? 'questions';
  const isBeside = part === 'questions' || part === 'settings' || part === 'rules';
  useUndoKeys(draft);
  return (
    <>
      <PageHead
        title={draft.content.title || form.content.title}
        note={
          <span className="inline-flex items-center gap-2">
            <Link to={to('/forms')} className="text-pine underline">
              All forms
            </Link>
            <Standing form={form} />
            {form.canEdit && <Kept draft={draft} />}
          </span>
        }
      >
        {form.canEdit && (
          <>
            <IconButton label="Undo" disabled={!draft.undo} onClick={() => draft.undo?.()}>
              <Undo2 size={16} aria-hidden />
            </IconButton>
            <IconButton label="Redo" disabled={!draft.redo} onClick={() => draft.redo?.()}>
              <Redo2 size={16} aria-hidden />
            </IconButton>
          </>
        )}
        <MoreMenu form={form} draft={draft} />
        {form.canEdit && <PublishButton form={form} draft={draft} />}
      </PageHead>
      {!form.canEdit && (
        <p className="text-muted mb-3">You may read this form. Changing it takes the right to, and managing all of its clients.</p>
      )}
      <div className={isBeside ? 'grid gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(22rem,27rem)] items-start' : ''}>
        <Tabs
          label="Parts of the form"
          value={part}
          onChange={(id) => put({ part: id === 'questions' ? null : id }, { replace: true })}
          tabs={[
            {
              id: 'questions',
              title: `Questions (${draft.content.items.length})`,
              content: <QuestionsTab form={form} draft={draft} chosen={chosen} onChoose={setChosen} />,
            },
            { id: 'settings', title: 'Settings', content: <SettingsTab form={form} draft={draft} /> },
            {
              id: 'rules',
              title: `Sorting (${draft.content.rules.length})`,
              content: <RulesTab form={form} draft={draft} sample={sample} />,
            },
            {
              id: 'links',
              title: `Links (${form.links.filter(({ address }) => address !== null).length})`,
              content: <LinksTab form={form} />,
            },
            { id: 'versions', title: 'Versions', content: <VersionsTab form={form} /> },
          ]}
        />
        {isBeside && (
          <Preview
            form={form}
            content={draft.content}
            answers={sample}
            onAnswers={setSample}
            marked={part === 'questions' ? chosen : null}
          />
        )}
      </div>
      {draft.theirs && <Conflict draft={draft} theirs={draft.theirs} />}
    </>
  );
}

function Standing({ form }: { form: FormShape }) {
  if (form.isArchived) return <Tag tone="rind">Archived</Tag>;
  if (form.publishedVersion === null) return <Tag tone="lake">Not published yet</Tag>;
  return (
    <>
      <Tag tone="pine">Version {form.publishedVersion} is asked</Tag>
      {form.hasDraft && <Tag tone="lake">Changes not published</Tag>}
    </>
  );
}

function Kept({ draft }: { draft: FormDraft }) {
  if (draft.state === 'failed')
    return (
      <span role="alert" className="text-rhubarb font-medium">
        Not kept: {draft.failure}{' '}
        <button type="button" className="underline" onClick={draft.again}>
          Try again
        </button>
      </span>
    );
  return (
    <span role="status" className="text-[13px]">
      {draft.state === 'saving' ? 'Keeping…' : draft.state === 'saved' ? 'All is kept' : ''}
    </span>
  );
}

/** Undo and redo from anywhere but a field, which has its own. */
function useUndoKeys({ undo, redo }: FormDraft): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      if (event.target instanceof HTMLElement && event.target.matches('input[type="text"], input:not([type]), textarea')) return;
      event.preventDefault();
      if (event.shiftKey) redo?.();
      else undo?.();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [undo, redo]);
}

function PublishButton({ form, draft }: { form: FormShape; draft: FormDraft }) {
  const [isTold, setIsTold] = useState(false);
  const [busy, setBusy] = useState(false);
  const touched = useTouched();
  const publish = async () => {
    if (draft.faults.length > 0) return setIsTold(true);
    setBusy(true);
    try {
      const version = await draft.settle();
      if (version === null) return;
      const now = await call<FormShape>(`/forms/${form.id}/publish`, { method: 'POST', version });
      draft.take(now);
      touched();
      toast(`Version ${now.publishedVersion} is asked from now on`);
    } catch (problem) {
      toast.error(wordsOf(problem));
      if (problem instanceof ApiProblem && problem.code === 'form.faulty') touched();
    } finally {
      setBusy(false);
    }
  };
  const isChanged = form.hasDraft || draft.state !== 'saved';
  return (
    <>
      <Button look="main" disabled={!isChanged || busy} onClick={() => void publish()}>
        Publish
      </Button>
      {isTold && (
        <Dialog open onClose={() => setIsTold(false)} title="This must be mended first">
          <ul className="grid gap-2 mb-4">
            {draft.faults.map((fault, at) => (
              <li key={at}>
                {fault.key && (
                  <span className="font-medium">{draft.content.items.find(({ key }) => key === fault.key)?.label || fault.key}: </span>
                )}
                {fault.rule !== undefined && <span className="font-medium">Rule {fault.rule + 1}: </span>}
                {faultWords(fault, draft.content.items)}
              </li>
            ))}
          </ul>
          <div className="flex justify-end">
            <Button look="main" onClick={() => setIsTold(false)}>
              Mend it
            </Button>
          </div>
        </Dialog>
      )}
    </>
  );
}

function MoreMenu({ form, draft }: { form: FormShape; draft: FormDraft }) {
  const { to } = useClients();
  const navigate = useNavigate();
  const { opened, open, close } = useOpened();
  const archive = useWrite((archived: boolean) => call(`/forms/${form.id}/archive`, { method: 'POST', body: { archived } }));
  const discard = async () => {
    const version = await draft.settle();
    if (version === null) return;
    try {
      draft.take(await call<FormShape>(`/forms/${form.id}/discard`, { method: 'POST', version }));
      toast('Back to what is asked');
    } catch (problem) {
      toast.error(wordsOf(problem));
    }
  };
  return (
    <>
      <Menu label="More" trigger="More…" className={buttonClass('plain')}>
        <MenuItem onSelect={() => open('copy')}>Copy this form…</MenuItem>
        <MenuItem onSelect={() => window.location.assign(`/api/forms/${form.id}/document`)}>Save it as a file (JSON)</MenuItem>
        {form.canEdit && form.hasDraft && form.publishedVersion !== null && (
          <MenuItem onSelect={() => void discard()}>Drop the changes, back to version {form.publishedVersion}</MenuItem>
        )}
        {form.canEdit && (
          <MenuItem
            onSelect={() =>
              archive.mutate(!form.isArchived, {
                onSuccess: () =>
                  toast(form.isArchived ? 'The form can be asked again' : 'Archived: its links open nothing until it is taken back'),
              })
            }
          >
            {form.isArchived ? 'Take it back from the archive' : 'Archive it'}
          </MenuItem>
        )}
      </Menu>
      {opened === 'copy' && (
        <NewFormDialog
          copyOf={{ id: form.id, title: form.content.title }}
          onClose={close}
          onMade={(id) => void navigate(to(`/forms/${id}`))}
        />
      )}
    </>
  );
}

/** Somebody else changed the form meanwhile: one of both states is chosen. */
function Conflict({ draft, theirs }: { draft: FormDraft; theirs: FormShape }) {
  return (
    <Dialog
      open
      onClose={() => undefined}
      title="Somebody else changed this form meanwhile"
      description="Both states are kept until you choose."
    >
      <div className="grid grid-cols-2 gap-4 mb-4">
        <State title="Yours" titles={draft.content.items.map(({ label }) => label)} />
        <State title="Theirs" titles={theirs.content.items.map(({ label }) => label)} />
      </div>
      <div className="flex justify-end gap-2">
        <Button onClick={() => draft.take(theirs)}>Take theirs</Button>
        <Button look="main" onClick={() => void draft.keepMine()}>
          Keep mine
        </Button>
      </div>
    </Dialog>
  );
}

const State = ({ title, titles }: { title: string; titles: readonly string[] }) => (
  <div className="card p-3 min-w-0">
    <h3 className="font-semibold mb-1">{title}</h3>
    <ol className="text-[13px]">
      {titles.map((words, at) => (
        <li key={at} className="truncate">
          {words}
        </li>
      ))}
    </ol>
  </div>
);
