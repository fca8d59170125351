import type { DecidedShape, RoomDecisionBody, RoomPieceShape } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../lib/api';

const BIG = 'min-h-11 px-5 rounded-md font-semibold border disabled:opacity-60';

/** The contact's word on exactly this version: approve, or ask for changes with a remark. Both ask once more before they count. */
export function Decide({ piece, contactId, onDecided }: { piece: RoomPieceShape; contactId: string; onDecided: () => void }) {
  const [step, setStep] = useState<'choose' | 'approve' | 'changes'>('choose');
  const [things, setThings] = useState(['']);
  const remark = things
    .map((thing) => thing.trim())
    .filter(Boolean)
    .join('\n');
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  if (piece.outcome === 'approved') return <Decided words="Approved. Thank you." />;
  if (piece.outcome === 'changes') return <Decided words="Changes are asked. The next version comes to you." />;
  if (!piece.isAsked) return <Decided words="Another contact is asked first. You hear when it is your turn." />;
  if (piece.mine === 'approve') return <Decided words="You approved this version. Others are still to answer." />;

  const send = async (verdict: RoomDecisionBody['verdict']) => {
    if (verdict === 'changes' && remark === '') return setError('Say what should change.');
    setBusy(true);
    setError(undefined);
    try {
      const body: RoomDecisionBody = {
        packetId: piece.packetId,
        pieceId: piece.pieceId,
        versionId: piece.versionId,
        verdict,
        remark: verdict === 'changes' ? remark : '',
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
          <button type="button" className={`${BIG} bg-pine text-on-pine border-pine`} onClick={() => setStep('approve')}>
            Approve
          </button>
          <button type="button" className={`${BIG} border-line-strong`} onClick={() => setStep('changes')}>
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
            <button type="button" className={`${BIG} border-transparent text-pine`} onClick={() => setStep('choose')}>
              Not yet
            </button>
          </div>
        </>
      )}
      {step === 'changes' && (
        <>
          <p className="font-medium">What should change?</p>
          <p className="text-muted text-[13px] mb-2">One thing in each box: every one is settled or answered.</p>
          {things.map((thing, index) => (
            <textarea
              key={index}
              aria-label={`Change ${index + 1}`}
              aria-invalid={error !== undefined && remark === ''}
              className="field mb-2"
              rows={2}
              value={thing}
              onChange={(event) => setThings(things.map((other, at) => (at === index ? event.target.value.replaceAll('\n', ' ') : other)))}
            />
          ))}
          <button type="button" className="text-pine underline min-h-11 sm:min-h-8 mb-2" onClick={() => setThings([...things, ''])}>
            One more change
          </button>
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
            <button type="button" className={`${BIG} border-transparent text-pine`} onClick={() => setStep('choose')}>
              Back
            </button>
          </div>
        </>
      )}
    </div>
  );
}

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
