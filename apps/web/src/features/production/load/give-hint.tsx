import { useQuery } from '@tanstack/react-query';
import type { LoadPersonShape, LoadStepShape } from '@zesting/contract';
import { createPortal } from 'react-dom';
import { candidatesQuery } from '../../../api/people';
import { dayWords } from '../../../lib/format';
import { SKILL_LEVELS } from '../../../lib/words';

/** While a step is held over somebody's row: how good they are at it, and when it would end with them. */
export function GiveHint({ step, person }: { step: LoadStepShape; person: LoadPersonShape | undefined }) {
  const { data } = useQuery(candidatesQuery(step.stepId));
  const found = person && data?.find(({ personId }) => personId === person.personId);
  return createPortal(
    <div
      role="status"
      className="fixed z-50 bottom-4 left-1/2 -translate-x-1/2 card shadow-2xl px-4 py-2 w-[min(32rem,92vw)] text-[13px] no-print"
    >
      <p className="font-medium">
        {step.title} of {step.pieceTitle}
      </p>
      {!person ? (
        <p className="text-muted">Drop it on the row of whoever is to have it.</p>
      ) : !found ? (
        <p className="text-muted">Working out when {person.name} would end it…</p>
      ) : found.isBarred ? (
        <p className="text-rhubarb font-medium">{person.name} must not work for this client.</p>
      ) : (
        <p>
          {person.name}: {(SKILL_LEVELS[found.skillLevel] ?? '').toLowerCase()}
          {found.predictedFinishOn && (
            <span
              className={found.latestFinishOn !== null && found.predictedFinishOn > found.latestFinishOn ? 'text-rhubarb font-medium' : ''}
            >
              , would end it {dayWords(found.predictedFinishOn)}
              {found.latestFinishOn !== null &&
                found.predictedFinishOn > found.latestFinishOn &&
                `, needed ${dayWords(found.latestFinishOn)}`}
            </span>
          )}
        </p>
      )}
    </div>,
    document.body,
  );
}
