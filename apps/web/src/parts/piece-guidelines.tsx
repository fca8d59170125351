import { useQuery } from '@tanstack/react-query';
import type { PieceShape } from '@zesting/contract';
import { pieceGuidelinesQuery } from '../api/guidelines';
import { useSession } from '../lib/queries';
import { useReached } from '../lib/use-reached';
import { GuidelinePictures } from './guideline-pictures';
import { LinkedText } from '../ui/linked-text';
import { Tag } from '../ui/tags';

/** How this kind of thing is made: what is for the viewer's own step stands open. Nothing where nothing is written. */
export function PieceGuidelines({ piece }: { piece: Pick<PieceShape, 'id' | 'steps'> }) {
  const { personId } = useSession();
  const { data } = useQuery(pieceGuidelinesQuery(piece.id));
  useReached('guidelines', (data?.guidelines.length ?? 0) > 0);
  const own = new Set(piece.steps.flatMap(({ doerId, finishedOn, skill }) => (doerId === personId && finishedOn === null ? [skill] : [])));
  if (!data || data.guidelines.length === 0) return null;
  return (
    <section id="guidelines" aria-labelledby="guidelines-head" className="mt-4 pt-3 border-t border-line scroll-mt-4">
      <h3 id="guidelines-head" className="text-muted text-[13px] font-sans font-normal tracking-normal">
        How we make this
      </h3>
      <ul>
        {data.guidelines.map((guideline) => {
          const isOwn = guideline.skill !== null && own.has(guideline.skill);
          return (
            <li key={guideline.id} className="py-1">
              <details open={isOwn}>
                <summary className="cursor-pointer min-h-6">
                  <span className="font-medium">{guideline.title}</span> {isOwn && <Tag tone="pine">for your step</Tag>}
                </summary>
                <p className="whitespace-pre-wrap break-words mt-1">
                  <LinkedText text={guideline.text} />
                </p>
                <GuidelinePictures guideline={guideline} />
              </details>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
