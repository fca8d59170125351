import type { DecidedShape, RoomDecisionBody, RoomPieceShape } from '@zesting/contract';
import { momentWords, wordsBetween, type Pointed } from '@zesting/core';
import { useState } from 'react';
import { call, wordsOf } from '../lib/api';
import { FIRST, nextKey, type Wanted } from './wanted';

const BIG = 'min-h-11 px-5 rounded-md font-semibold border disabled:opacity-60';

export type DecideStep = 'choose' | 'approve' | 'changes';

interface DecideProps {
  readonly piece: RoomPieceShape;
  readonly contactId: string;
  readonly step: DecideStep;
  readonly onStep: (step: DecideStep) => void;
  /** what should change, as it is being written */
  readonly wanted: readonly Wanted[];
  readonly onWanted: (wanted: readonly Wanted[]) => void;
  readonly onDecided: () => void;
}

/** The contact's word on exactly this version: approve, or ask for changes with a remark. Both ask once more before they count. */
export function Decide({ piece, contactId, step, onStep, wanted, onWanted, onDecided }: DecideProps) {
  const things = wanted.flatMap(({ text, place }) => (text.trim() === '' ? [] : { text: text.trim(), place }));
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  if (piece.outcome === 'approved') return <Decided words="Approved. Thank you." />;
  if (piece.outcome === 'changes') return <Decided words="Changes are asked. The next version comes to you." />;
  if (!piece.isAsked) return <Decided words="Another contact is asked first. You hear when it is your turn." />;
  if (piece.mine === 'approve') return <Decided words="You approved this version. Others are still to answer." />;

  const send = async (verdict: RoomDecisionBody['verdict']) => {
    if (verdict === 'changes' && things.length === 0) return setError('Say what should change.');
    if (verdict === 'changes' && wanted.some(({ text, place }) => place !== null && text.trim() === ''))
      return setError('You pointed at a place and said nothing about it: say what should change there, or take it away.');
    setBusy(true);
    setError(undefined);
    try {
      const body: RoomDecisionBody = {
        packetId: piece.packetId,
        pieceId: piece.pieceId,
        versionId: piece.versionId,
        verdict,
        things: verdict === 'changes' ? things : [],
      };
      await call<DecidedShape>(`/room/${contactId}/decisions`, { method: 'POST', body });
      onDecided();
    } catch (problem) {
      setError(wordsOf(problem));
    } finally {
      setBusy(false);
    }
  };

  return (
    <div className="mt-4 pt-4 border-t border-line no-print">
      {step === 'choose' && (
        <div className="grid gap-2 sm:flex">
          <button type="button" className={`${BIG} bg-pine text-on-pine border-pine`} onClick={() => onStep('approve')}>
            Approve
          </button>
          <button type="button" className={`${BIG} border-line-strong`} onClick={() => onStep('changes')}>
            Ask for changes
          </button>
        </div>
      )}
      {step === 'approve' && (
        <>
          <p className="mb-2">
            You approve exactly this version of <strong>{piece.title}</strong>, for{' '}
            {piece.channels.length === 1 ? 'its channel' : `all ${piece.channels.length} channels`}.
          </p>
          {error && <Alert words={error} />}
          <div className="grid gap-2 sm:flex">
            <button
              type="button"
              disabled={busy}
              className={`${BIG} bg-pine text-on-pine border-pine`}
              onClick={() => void send('approve')}
            >
              Yes, approve it
            </button>
            <button type="button" className={`${BIG} border-transparent text-pine`} onClick={() => onStep('choose')}>
              Not yet
            </button>
          </div>
        </>
      )}
      {step === 'changes' && (
        <>
          <p className="font-medium">What should change?</p>
          <p className="text-muted text-[13px] mb-2">
            One thing in each box. To show where, tap a sentence or a picture above, or stop a clip there.
          </p>
          <Boxes piece={piece} wanted={wanted} hasError={error !== undefined} onWanted={onWanted} />
          {error && <Alert words={error} />}
          <div className="grid gap-2 sm:flex">
            <button
              type="button"
              disabled={busy}
              className={`${BIG} bg-pine text-on-pine border-pine`}
              onClick={() => void send('changes')}
            >
              Send the changes
            </button>
            <button type="button" className={`${BIG} border-transparent text-pine`} onClick={() => onStep('choose')}>
              Back
            </button>
          </div>
        </>
      )}
    </div>
  );
}

interface BoxesProps {
  readonly piece: Pick<RoomPieceShape, 'channels' | 'texts'>;
  readonly wanted: readonly Wanted[];
  readonly hasError: boolean;
  readonly onWanted: (wanted: readonly Wanted[]) => void;
}

/** A box for each thing that should change, with its place over it. */
function Boxes({ piece, wanted, hasError, onWanted }: BoxesProps) {
  return (
    <>
      {wanted.map((one, index) => (
        <div key={one.key} className="mb-2">
          {one.place && (
            <p className="flex items-center gap-2 text-[13px] text-lake">
              <span
                className="inline-grid place-items-center min-w-6 h-6 rounded-full bg-rind text-card text-[12px] font-semibold"
                aria-hidden
              >
                {index + 1}
              </span>
              <span className="min-w-0 flex-1 line-clamp-2 break-words">{whereWords(one.place, piece)}</span>
              <button
                type="button"
                className="text-pine underline min-h-11 sm:min-h-8"
                aria-label={`Take away change ${index + 1}`}
                onClick={() => onWanted(wanted.length === 1 ? [FIRST] : wanted.filter((other) => other !== one))}
              >
                Take away
              </button>
            </p>
          )}
          <textarea
            aria-label={`Change ${index + 1}`}
            aria-invalid={hasError && one.text.trim() === ''}
            className="field"
            rows={2}
            maxLength={1000}
            // who points at a place goes on to say what is wrong there
            autoFocus={one.place !== null && one.text === ''}
            value={one.text}
            onChange={({ target }) =>
              onWanted(wanted.map((other) => (other === one ? { ...one, text: target.value.replaceAll('\n', ' ') } : other)))
            }
          />
        </div>
      ))}
      <button
        type="button"
        className="text-pine underline min-h-11 sm:min-h-8 mb-2"
        onClick={() => onWanted([...wanted, { ...FIRST, key: nextKey(wanted) }])}
      >
        One more change
      </button>
    </>
  );
}

/** What was pointed at, for whoever pointed. */
const whereWords = (place: Pointed, { channels, texts }: Pick<RoomPieceShape, 'channels' | 'texts'>): string => {
  if (place.kind === 'stretch') {
    const named = texts.find(({ key }) => key === place.textKey);
    if (named) return `${named.name}: “${place.words}”`;
    const on = channels.find((channel) => channel.copyOf === place.channelId);
    return `“${on?.isLaidOut ? wordsBetween(on.copy, place.from, place.to) : place.words}”`;
  }
  return place.kind === 'moment' ? `At ${momentWords(place.atMs)}` : 'This part of the picture';
};

function Decided({ words }: { words: string }) {
  return <p className="mt-4 pt-3 border-t border-line font-medium text-pine">{words}</p>;
}

function Alert({ words }: { words: string }) {
  return (
    <p role="alert" className="text-rhubarb font-medium mb-2">
      {words}
    </p>
  );
}
