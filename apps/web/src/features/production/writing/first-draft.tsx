import { useQuery } from '@tanstack/react-query';
import type { PieceShape } from '@zesting/contract';
import { firstDraft } from '@zesting/core';
import { useState } from 'react';
import { phrasesForQuery } from '../../../api/library';
import { shortPhrase } from '../../../lib/phrase-words';
import { Button } from '../../../ui/button';
import { Dialog } from '../../../ui/dialog';
import { FieldGroup } from '../../../ui/field-group';
import { OptionField } from '../../../ui/option-field';
import { Prose } from '../../../ui/prose';
import { draftAnswers } from './draft-answers';

interface FirstDraftProps {
  readonly piece: PieceShape;
  readonly copy: string;
  /** its copy has headings and lists: so has the draft */
  readonly isLaidOut: boolean;
  readonly onPut: (copy: string) => void;
}

/** How this kind of piece is written, beside its copy; and where nothing is written yet, a draft to begin from. */
export function FirstDraft({ piece, copy, isLaidOut, onPut }: FirstDraftProps) {
  const [isOpen, setOpen] = useState(false);
  const { outline } = piece.content;
  const answers = draftAnswers(piece.brief.requests);
  const { data } = useQuery(phrasesForQuery(piece.id));
  const openings = (data?.phrases ?? []).filter(({ kind }) => kind === 'opening');
  const isBegun = copy.trim() !== '';
  if (outline.length === 0 && (isBegun || openings.length + answers.length === 0)) return null;
  return (
    <div className="-mt-2 mb-3 text-[13px]">
      {outline.length > 0 && (
        <details>
          <summary className="text-muted min-h-6">Outline of the format “{piece.formatName}”</summary>
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
          Make a first draft
        </Button>
      )}
      {isOpen && (
        <DraftDialog
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
  readonly outline: PieceShape['content']['outline'];
  readonly isLaidOut: boolean;
  readonly openings: readonly { readonly id: string; readonly text: string }[];
  readonly answers: ReturnType<typeof draftAnswers>;
  readonly onPut: (draft: string) => void;
  readonly onClose: () => void;
}

/** What a draft is made of, and what it comes to. Nothing is saved by it. */
function DraftDialog({ outline, isLaidOut, openings, answers, onPut, onClose }: DraftDialogProps) {
  const [opening, setOpening] = useState<string | null>(openings[0]?.id ?? null);
  const [withOutline, setWithOutline] = useState(true);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const draft = firstDraft(
    openings.find(({ id }) => id === opening)?.text ?? '',
    withOutline ? outline : [],
    answers.filter((_, index) => !left.has(index)),
    { isLaidOut },
  );
  const leave = (index: number, isLeft: boolean) =>
    setLeft(new Set(isLeft ? [...left, index] : [...left].filter((other) => other !== index)));
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Make a first draft"
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
