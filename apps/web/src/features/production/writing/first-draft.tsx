import { useQuery } from '@tanstack/react-query';
import type { AidAskBody, AidDraftShape, PieceShape } from '@zesting/contract';
import { firstDraft, outlineFor } from '@zesting/core';
import { useState } from 'react';
import { phrasesForQuery } from '../../../api/library';
import { call, wordsOf } from '../../../lib/api';
import { shortPhrase } from '../../../lib/phrase-words';
import { useWrite } from '../../../lib/queries';
import { Button } from '../../../ui/button';
import { Dialog } from '../../../ui/dialog';
import { FieldGroup } from '../../../ui/field-group';
import { OptionField } from '../../../ui/option-field';
import { Prose } from '../../../ui/prose';
import { draftAnswers } from './draft-answers';

interface FirstDraftProps {
  readonly piece: PieceShape;
  /** whose own copy it is for; left away: for the copy that channels share */
  readonly channel?: { readonly channelId: string; readonly name: string; readonly kind: string };
  /** the channels of the piece as they are written now */
  readonly channels: readonly { readonly channelId: string; readonly kind: string; readonly copy: string }[];
  readonly copy: string;
  /** its copy has headings and lists: so has the draft */
  readonly isLaidOut: boolean;
  readonly onPut: (copy: string) => void;
}

/** How this kind of piece is written, beside its copy; and where nothing is written yet, a draft to begin from. */
export function FirstDraft({ piece, channel, channels, copy, isLaidOut, onPut }: FirstDraftProps) {
  const [isOpen, setOpen] = useState(false);
  // what is shared goes out wherever nothing else is written
  const shared = channels.filter((each) => each.copy.trim() === '').map(({ kind }) => kind);
  const outline = outlineFor(piece.content.outline, channel ? [channel.kind] : shared);
  const answers = draftAnswers(piece.brief.requests);
  const { data } = useQuery(phrasesForQuery(piece.id));
  const openings = (data?.phrases ?? []).filter(({ kind }) => kind === 'opening');
  const isBegun = copy.trim() !== '';
  if (outline.length === 0 && (isBegun || openings.length + answers.length === 0)) return null;
  // a channel whose copy is outlined no other than the shared one needs no second
  if (channel && outline.every(({ kinds = [] }) => kinds.length === 0)) return null;
  return (
    <div className="-mt-2 mb-3 text-[13px]">
      {outline.length > 0 && (
        <details>
          <summary className="text-muted min-h-6">
            Outline of the format “{piece.formatName}”{channel && ` on ${channel.name}`}
          </summary>
          <ol className="list-decimal pl-6 my-1">
            {outline.map(({ heading, prompt }, index) => (
              <li key={index}>
                <span className="font-medium">{heading}</span> <span className="text-muted">{prompt}</span>
              </li>
            ))}
          </ol>
        </details>
      )}
      {!isBegun && (
        <Button className="mt-1" onClick={() => setOpen(true)}>
          {channel ? `Draft for ${channel.name}` : 'Make a first draft'}
        </Button>
      )}
      {isOpen && (
        <DraftDialog
          pieceId={piece.id}
          title={channel ? `A first draft for ${channel.name}` : 'Make a first draft'}
          canAskAid={piece.content.canAskAid}
          outline={outline}
          isLaidOut={isLaidOut}
          openings={openings}
          answers={answers}
          onClose={() => setOpen(false)}
          onPut={(draft) => {
            onPut(draft);
            setOpen(false);
          }}
        />
      )}
    </div>
  );
}

interface DraftDialogProps {
  readonly pieceId: string;
  readonly title: string;
  /** a writing aid can be asked */
  readonly canAskAid: boolean;
  readonly outline: PieceShape['content']['outline'];
  readonly isLaidOut: boolean;
  readonly openings: readonly { readonly id: string; readonly text: string }[];
  readonly answers: ReturnType<typeof draftAnswers>;
  readonly onPut: (draft: string) => void;
  readonly onClose: () => void;
}

/** What a draft is made of, and what it comes to. Nothing is saved by it. */
function DraftDialog({ pieceId, title, canAskAid, outline, isLaidOut, openings, answers, onPut, onClose }: DraftDialogProps) {
  const [opening, setOpening] = useState<string | null>(openings[0]?.id ?? null);
  const [withOutline, setWithOutline] = useState(true);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const chosen = {
    opening: openings.find(({ id }) => id === opening)?.text ?? '',
    outline: withOutline ? outline.map(({ heading, prompt }) => ({ heading, prompt })) : [],
    answers: answers.filter((_, index) => !left.has(index)),
  };
  const own = firstDraft(chosen.opening, chosen.outline, chosen.answers, { isLaidOut });
  const asked = JSON.stringify(chosen);
  const [drafted, setDrafted] = useState<{ readonly asked: string; readonly draft: string } | null>(null);
  const aid = useWrite((body: AidAskBody) => call<AidDraftShape>(`/pieces/${pieceId}/drafts`, { method: 'POST', body }), { quiet: true });
  const askAid = () => aid.mutate({ ...chosen, isLaidOut }, { onSuccess: ({ draft: written }) => setDrafted({ asked, draft: written }) });
  // what was drafted from something else is not what is chosen now
  const fromAid = drafted?.asked === asked ? drafted.draft : null;
  const draft = fromAid ?? own;
  const leave = (index: number, isLeft: boolean) =>
    setLeft(new Set(isLeft ? [...left, index] : [...left].filter((other) => other !== index)));
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={title}
      description="An opening, the outline and what the brief says, to write on from. It is put into the copy and not saved yet."
    >
      <div className="grid gap-x-6 md:grid-cols-2">
        <div>
          {openings.length > 0 && (
            <OptionField
              label="Opening"
              none="None"
              value={opening}
              options={openings.map(({ id, text }) => ({ id, name: shortPhrase(text) }))}
              onChange={setOpening}
            />
          )}
          {outline.length > 0 && (
            <Tick isOn={withOutline} onChange={setWithOutline}>
              The headings of the outline
            </Tick>
          )}
          {answers.length > 0 && (
            <FieldGroup label="Out of the brief">
              {() =>
                answers.map(({ question, answer }, index) => (
                  <Tick key={index} isOn={!left.has(index)} onChange={(isOn) => leave(index, !isOn)}>
                    {question} <span className="text-muted">{answer.length > 80 ? `${answer.slice(0, 80)}…` : answer}</span>
                  </Tick>
                ))
              }
            </FieldGroup>
          )}
          {canAskAid && (
            <div className="mt-3 border-t border-line pt-3">
              <Button onClick={askAid} disabled={aid.isPending || own === ''}>
                {aid.isPending ? 'The writing aid writes…' : 'Have the writing aid draft it'}
              </Button>
              <p className="text-muted text-[13px] mt-1">
                What is chosen here leaves the house: it is told to an aid outside of Zesting, with the client’s words to use and never to
                use.
              </p>
              {aid.error && (
                <p role="alert" className="text-rhubarb text-[13px]">
                  {wordsOf(aid.error)}
                </p>
              )}
              {fromAid !== null && (
                <p className="text-rind text-[13px]">
                  The writing aid wrote this. Nobody has read it yet.{' '}
                  <button type="button" className="underline min-h-6" onClick={() => setDrafted(null)}>
                    Back to our own
                  </button>
                </p>
              )}
            </div>
          )}
        </div>
        <section
          aria-label="The draft"
          className={`rounded-md bg-sunk p-3 break-words max-h-80 overflow-auto ${isLaidOut ? '' : 'whitespace-pre-wrap'}`}
          tabIndex={0}
        >
          {draft === '' ? <span className="text-muted">Nothing is chosen.</span> : isLaidOut ? <Prose source={draft} /> : draft}
        </section>
      </div>
      <div className="flex flex-wrap justify-end gap-2 mt-4">
        <Button onClick={onClose}>Not now</Button>
        <Button look="main" disabled={draft === ''} onClick={() => onPut(draft)}>
          Put it into the copy
        </Button>
      </div>
    </Dialog>
  );
}

const Tick = ({ isOn, onChange, children }: { isOn: boolean; onChange: (isOn: boolean) => void; children: React.ReactNode }) => (
  <label className="flex items-start gap-2 min-h-7 mb-1">
    <input
      type="checkbox"
      className="size-4 mt-0.5 accent-pine shrink-0"
      checked={isOn}
      onChange={({ target }) => onChange(target.checked)}
    />
    <span className="min-w-0 break-words">{children}</span>
  </label>
);
