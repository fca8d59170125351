import { createPortal } from 'react-dom';
import { count, dayWords } from '../../../lib/format';
import { DANGER_WORDS } from '../../../lib/words';
import { DangerTag } from '../../../ui/tags';
import type { LineChange, LineOutcome } from './line-case';

/** While a bar is held: what letting go of it there would do. */
export function LineHint({ title, change, outcome }: { title: string; change: LineChange | null; outcome: LineOutcome | undefined }) {
  return createPortal(
    <div
      role="status"
      className="fixed z-50 bottom-4 left-1/2 -translate-x-1/2 card shadow-2xl px-4 py-2 w-[min(36rem,92vw)] text-[13px] no-print"
    >
      <p className="font-medium">{title}</p>
      {!change ? (
        <p className="text-muted">Nothing changes.</p>
      ) : (
        <>
          <p className="flex flex-wrap items-center gap-x-2">
            {changeWords(change)}
            {outcome && <DangerTag danger={outcome.danger} />}
          </p>
          {outcome?.isTooLate && <p className="text-rhubarb font-medium">Later than what follows allows: the conflict stays to be seen.</p>}
          {outcome === undefined ? (
            <p className="text-rhubarb font-medium">This cannot be planned: somebody on the path never works.</p>
          ) : outcome.worse.length === 0 && !outcome.isTooLate ? (
            <p className="text-muted">No step is in more danger by it. What it does to others’ work is predicted once it is set.</p>
          ) : (
            <ul>
              {outcome.worse.map(({ title: step, danger, untilOn }) => (
                <li key={step} className={danger === 'tight' ? 'text-rind font-medium' : 'text-rhubarb font-medium'}>
                  {step}: {DANGER_WORDS[danger].toLowerCase()}
                  {untilOn && `, to be finished by ${dayWords(untilOn)}`}
                </li>
              ))}
            </ul>
          )}
        </>
      )}
    </div>,
    document.body,
  );
}

function changeWords(change: LineChange): string {
  if (change.kind === 'pin') return `To be finished on ${dayWords(change.finishOn)}`;
  if (change.kind === 'span') return `${count(change.spanDays, 'working day')} for it`;
  return `Goes out on ${dayWords(change.on)}`;
}
