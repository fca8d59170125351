import type { ReceiptShape } from '@zesting/contract';
import { dayWords, instantWords } from '../lib/format';
import { VisitorFrame } from '../ui/visitor-frame';

const STAGES = [
  { key: 'received', words: 'We have it' },
  { key: 'planned', words: 'Accepted and planned' },
  { key: 'in_production', words: 'Being made' },
  { key: 'with_client', words: 'With you for sign-off' },
  { key: 'approved', words: 'Approved' },
  { key: 'published', words: 'Published' },
] as const;

/** How a request stands, for the one who sent it. */
export function Receipt({ receipt }: { receipt: ReceiptShape }) {
  const reached = receipt.state === 'accepted' ? (receipt.progress ?? 'planned') : 'received';
  const at = STAGES.findIndex((stage) => stage.key === reached);
  return (
    <VisitorFrame visited={receipt}>
      <p className="text-muted">Request {receipt.number}</p>
      <h1 className="text-2xl mb-2 break-words">{receipt.title}</h1>
      <p className="mb-5">
        Received {instantWords(receipt.receivedAt)}
        {receipt.wishOn && `, wished for ${dayWords(receipt.wishOn)}`}.
      </p>
      {receipt.state === 'declined' ? (
        <div className="card p-4">
          <h2 className="text-lg">We cannot take this on</h2>
          <p className="whitespace-pre-wrap break-words">{receipt.declineReason}</p>
        </div>
      ) : (
        <ol className="card p-4 grid gap-3">
          {STAGES.map((stage, index) => (
            <li
              key={stage.key}
              className={`flex items-center gap-3 ${index > at ? 'text-muted' : ''}`}
              aria-current={index === at ? 'step' : undefined}
            >
              <span aria-hidden className={`size-4 rounded-full border-2 ${index <= at ? 'bg-pine border-pine' : 'border-line-strong'}`} />
              <span className={index === at ? 'font-semibold' : ''}>{stage.words}</span>
            </li>
          ))}
        </ol>
      )}
    </VisitorFrame>
  );
}
