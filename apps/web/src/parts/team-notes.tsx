import { useQuery } from '@tanstack/react-query';
import type { TeamNoteBody, TeamNoteKind, TeamNoteShape, TeamNotesShape, UploadShape } from '@zesting/contract';
import { Paperclip } from 'lucide-react';
import { useState } from 'react';
import { teamNotesQuery } from '../api/production';
import { call, wordsOf } from '../lib/api';
import { instantWords } from '../lib/format';
import { useKept } from '../lib/kept';
import { useWrite } from '../lib/queries';
import { useUploads } from '../lib/use-uploads';
import { FileList } from '../ui/answers';
import { Button } from '../ui/button';
import { LinkedText } from '../ui/linked-text';
import { PickFiles } from '../ui/pick-files';
import { UploadList } from '../ui/upload-list';
import { TellField, toldOf } from './tell-field';

/** What the team writes on. */
export interface Noted {
  readonly kind: 'piece' | 'idea';
  readonly id: string;
  /** whether files can go with what is written */
  readonly canAttach: boolean;
}

/** Where the API has it. */
const pathOf = ({ kind, id }: Noted): string => `/${kind === 'piece' ? 'pieces' : 'ideas'}/${id}`;

const useTeamNotes = (of: Noted) => useQuery(teamNotesQuery(pathOf(of)));

/** What the team added to the brief, under what was asked. */
export function BriefAdditions({ of }: { of: Noted }) {
  const { data } = useTeamNotes(of);
  const [writing, setWriting] = useState(false);
  const additions = data?.notes.filter((note) => note.kind === 'brief') ?? [];
  return (
    <div className="mt-4 pt-3 border-t border-line">
      <h3 className="text-muted text-[13px] font-sans font-normal tracking-normal">Added by the team</h3>
      <ul>
        {additions.map((note) => (
          <Note key={note.id} note={note} />
        ))}
      </ul>
      {writing ? (
        <Compose of={of} kind="brief" team={data?.team ?? []} onDone={() => setWriting(false)} />
      ) : (
        <Button look="quiet" className="-ml-3 mt-1" onClick={() => setWriting(true)}>
          Add to the brief…
        </Button>
      )}
    </div>
  );
}

/** The team's talk about a piece or an idea, which the client never sees. */
export function Talk({ of }: { of: Noted }) {
  const { data } = useTeamNotes(of);
  const comments = data?.notes.filter((note) => note.kind === 'comment') ?? [];
  return (
    <>
      <ul>
        {comments.map((note) => (
          <Note key={note.id} note={note} />
        ))}
      </ul>
      <Compose of={of} kind="comment" team={data?.team ?? []} />
    </>
  );
}

function Note({ note }: { note: TeamNoteShape }) {
  const [text, setText] = useKept<string>(`note:${note.id}`);
  const edit = useWrite((next: string) => call(`/notes/${note.id}`, { method: 'PATCH', body: { text: next }, version: note.version }));
  const remove = useWrite(() => call(`/notes/${note.id}`, { method: 'DELETE' }));
  return (
    <li className="py-2 border-t border-line first:border-t-0">
      <p className="flex flex-wrap items-baseline gap-x-2 text-[13px]">
        <span className="font-medium">{note.authorName}</span>
        <span className="text-muted tabular">
          {instantWords(note.createdAt)}
          {note.editedAt && ', changed since'}
        </span>
        {note.mentioned.length > 0 && <span className="text-lake">told {note.mentioned.join(', ')}</span>}
      </p>
      {text === null ? (
        <p className="whitespace-pre-wrap break-words">
          <LinkedText text={note.text} />
        </p>
      ) : (
        <textarea
          aria-label="Change what you wrote"
          className="field my-1"
          rows={3}
          maxLength={5000}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      )}
      {note.files.length > 0 && <FileList files={note.files} />}
      {(note.isMine || note.canRemove) && (
        <p className="flex gap-3 text-[13px]">
          {note.isMine && text === null && (
            <button type="button" className="text-pine underline min-h-6" onClick={() => setText(note.text)}>
              Change
            </button>
          )}
          {text !== null && (
            <>
              <button
                type="button"
                className="text-pine underline min-h-6"
                disabled={edit.isPending || text.trim() === ''}
                onClick={() => edit.mutate(text.trim(), { onSuccess: () => setText(null) })}
              >
                Save
              </button>
              <button type="button" className="underline min-h-6" onClick={() => setText(null)}>
                Leave as it was
              </button>
            </>
          )}
          {note.canRemove && text === null && (
            <button
              type="button"
              className="text-muted underline min-h-6"
              disabled={remove.isPending}
              onClick={() => remove.mutate(undefined)}
            >
              Take back
            </button>
          )}
        </p>
      )}
    </li>
  );
}

interface ComposeProps {
  readonly of: Noted;
  readonly kind: TeamNoteKind;
  readonly team: TeamNotesShape['team'];
  readonly onDone?: () => void;
}

interface Draft {
  readonly text: string;
  readonly files: readonly UploadShape[];
  /** chosen by hand; those whose name is typed behind an @ are told too */
  readonly told: readonly string[];
}
const EMPTY: Draft = { text: '', files: [], told: [] };

/** Writes a note: text with links, files, and who hears of it. What is typed is kept while the page is away. */
function Compose({ of, kind, team, onDone }: ComposeProps) {
  const [kept, setKept] = useKept<Draft>(`${of.kind}:${of.id}:${kind}`);
  const draft = kept ?? EMPTY;
  const [error, setError] = useState<string>();
  const uploads = useUploads(`${pathOf(of)}/uploads`, (file) =>
    setKept((before) => ({ ...(before ?? EMPTY), files: [...(before ?? EMPTY).files, file] })),
  );
  const write = useWrite((body: TeamNoteBody) => call(`${pathOf(of)}/notes`, { method: 'POST', body }), { quiet: true });
  const change = (part: Partial<Draft>) => {
    const next = { ...draft, ...part };
    setKept(next.text === '' && next.files.length === 0 && next.told.length === 0 ? null : next);
  };
  const send = () => {
    if (draft.text.trim() === '') return setError('Write something first.');
    if (uploads.list.length > 0) return setError('A file is still on its way.');
    setError(undefined);
    write.mutate(
      { kind, text: draft.text.trim(), assetIds: draft.files.map((file) => file.assetId), mentionIds: toldOf({ team, ...draft }) },
      {
        onSuccess: () => {
          setKept(null);
          onDone?.();
        },
        onError: (problem) => setError(wordsOf(problem)),
      },
    );
  };
  const isOpen = kind === 'brief' || draft.text !== '' || draft.files.length > 0;
  return (
    <div className="mt-2">
      <textarea
        aria-label={kind === 'brief' ? 'What is added to the brief' : 'Write to the team'}
        placeholder={kind === 'brief' ? 'What the makers need to know; links open by a click' : 'Write to the team; @name tells somebody'}
        className="field"
        rows={isOpen ? 3 : 1}
        maxLength={5000}
        value={draft.text}
        onChange={(event) => change({ text: event.target.value })}
      />
      {draft.files.length > 0 && <FileList files={draft.files} />}
      <UploadList uploads={uploads} />
      {isOpen && (
        <>
          <TellField team={team} text={draft.text} told={draft.told} onChange={(told) => change({ told })} />
          {error && (
            <p role="alert" className="text-rhubarb text-[13px] font-medium">
              {error}
            </p>
          )}
          <div className="flex flex-wrap gap-2 mt-1">
            <Button look="main" disabled={write.isPending} onClick={send}>
              {kind === 'brief' ? 'Add to the brief' : 'Write it'}
            </Button>
            {of.canAttach && (
              <PickFiles label="Files that go with it" onPick={uploads.add}>
                <Paperclip size={15} aria-hidden /> Files
              </PickFiles>
            )}
            <Button
              look="quiet"
              onClick={() => {
                setKept(null);
                setError(undefined);
                onDone?.();
              }}
            >
              Leave it
            </Button>
          </div>
        </>
      )}
    </div>
  );
}
