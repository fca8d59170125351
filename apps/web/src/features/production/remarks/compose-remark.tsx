import type { Audience, ContentShape, PlaceBody, RemarkBody, RemarksShape } from '@zesting/contract';
import { momentWords, wordsBetween, type Pointed } from '@zesting/core';
import { Crosshair, X } from 'lucide-react';
import { useState } from 'react';
import { call, wordsOf } from '../../../lib/api';
import { useKept } from '../../../lib/kept';
import { useWrite } from '../../../lib/queries';
import { TellField, toldOf } from '../../../parts/tell-field';
import { Button, IconButton } from '../../../ui/button';
import { AudienceField } from './audience-field';

interface Draft {
  readonly text: string;
  readonly audience: Audience;
  readonly told: readonly string[];
  readonly place: Pointed | null;
}
const EMPTY: Draft = { text: '', audience: 'team', told: [], place: null };

/** What is being written about a piece, kept while the page is away. */
export function useRemarkDraft(pieceId: string) {
  const [kept, setKept] = useKept<Draft>(`piece:${pieceId}:remark`);
  const draft = kept ?? EMPTY;
  const change = (part: Partial<Draft>) => {
    const next = { ...draft, ...part };
    setKept(next.text === '' && next.place === null ? null : next);
  };
  return { draft, change, forget: () => setKept(null) };
}

/** What channels share, in which something is pointed at. */
type SharedCopy = Pick<ContentShape['shared'], 'copy' | 'isLaidOut' | 'texts'>;

/** What is pointed at, in words. */
const pointedWords = (place: Pointed, shared: SharedCopy): string => {
  if (place.kind === 'stretch') {
    const named = shared.texts.find(({ key }) => key === place.textKey);
    if (named) return `${named.name}: “${place.words}”`;
    return `“${shared.isLaidOut && place.channelId === null ? wordsBetween(shared.copy, place.from, place.to) : place.words}”`;
  }
  return place.kind === 'moment' ? `the moment ${momentWords(place.atMs)}` : 'the part of the picture';
};

interface ComposeRemarkProps {
  readonly pieceId: string;
  readonly shared: SharedCopy;
  readonly all: Pick<RemarksShape, 'team' | 'canWriteToClient'>;
  readonly work: ReturnType<typeof useRemarkDraft>;
  readonly isPointing: boolean;
  readonly onPoint: (isPointing: boolean) => void;
}

/** Writes a remark, about the whole or at a place that is pointed at. */
export function ComposeRemark({ pieceId, shared, all: { team, canWriteToClient }, work, isPointing, onPoint }: ComposeRemarkProps) {
  const { draft, change, forget } = work;
  const [error, setError] = useState<string>();
  const add = useWrite((body: RemarkBody) => call(`/pieces/${pieceId}/remarks`, { method: 'POST', body }), { quiet: true });
  const send = () => {
    if (draft.text.trim() === '') return setError('Write something first.');
    setError(undefined);
    const place: PlaceBody | null = draft.place;
    add.mutate(
      { text: draft.text.trim(), audience: draft.audience, mentionIds: toldOf({ team, ...draft }), place },
      { onSuccess: forget, onError: (problem) => setError(wordsOf(problem)) },
    );
  };
  return (
    <section aria-label="A new remark" className="card p-4">
      <textarea
        aria-label="What you have to say"
        placeholder="About the whole piece, or point at a place first; @name tells somebody"
        className="field"
        rows={3}
        maxLength={2000}
        value={draft.text}
        onChange={({ target }) => change({ text: target.value })}
      />
      {draft.place && (
        <p className="flex items-center gap-1 text-[13px] text-lake">
          <span className="min-w-0 line-clamp-2 break-words">at {pointedWords(draft.place, shared)}</span>
          <IconButton label="About the whole piece instead" onClick={() => change({ place: null })}>
            <X size={15} aria-hidden />
          </IconButton>
        </p>
      )}
      {canWriteToClient && <AudienceField value={draft.audience} onChange={(audience) => change({ audience })} />}
      {draft.text !== '' && <TellField team={team} text={draft.text} told={draft.told} onChange={(told) => change({ told })} />}
      {error && (
        <p role="alert" className="text-rhubarb text-[13px] font-medium">
          {error}
        </p>
      )}
      <div className="flex flex-wrap gap-2 mt-2">
        <Button look="main" disabled={add.isPending} onClick={send}>
          Add the remark
        </Button>
        <Button aria-pressed={isPointing} onClick={() => onPoint(!isPointing)}>
          <Crosshair size={15} aria-hidden /> {isPointing ? 'Do not point' : 'Point at a place'}
        </Button>
      </div>
      {isPointing && (
        <p role="status" className="text-lake text-[13px] mt-2">
          Click a sentence or mark words; tap a picture or draw on it; stop a clip where you mean.
        </p>
      )}
    </section>
  );
}
