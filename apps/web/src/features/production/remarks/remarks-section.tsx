import { useQuery } from '@tanstack/react-query';
import type { PieceShape } from '@zesting/contract';
import { Link } from 'react-router';
import { remarksQuery } from '../../../api/production';
import { count } from '../../../lib/format';
import { Tag } from '../../../ui/tags';
import { contentOf, placed } from './remark-place';
import { RemarkThread } from './remark-thread';

/** What was said about the piece, as a to-do: the client's is settled or answered before the piece goes to the client again. */
export function RemarksSection({ piece }: { piece: PieceShape }) {
  const { data } = useQuery(remarksQuery(piece.id));
  if (!data || data.remarks.length === 0) return null;
  const remarks = placed(data.remarks, contentOf(piece));
  const open = remarks.filter(({ remark }) => remark.state === 'open');
  const rounds = [...new Set(data.remarks.map(({ round }) => round))];
  return (
    <section id="remarks" aria-label="Remarks" className={`card p-4 scroll-mt-4 ${open.length > 0 ? 'border-rind' : ''}`}>
      <h2 className="text-lg flex flex-wrap items-center gap-2 mb-1">
        Remarks
        {open.length > 0 ? <Tag tone="rind">{open.length} to settle or answer</Tag> : <Tag tone="pine">All settled or answered</Tag>}
        <Link to={`/pieces/${piece.id}/remarks`} className="ml-auto text-pine underline text-[13px] font-sans font-normal tracking-normal">
          On the piece
        </Link>
      </h2>
      {rounds.map((round) => {
        const ofRound = remarks.filter(({ remark }) => remark.round === round);
        const isOver = ofRound.every(({ remark }) => remark.state !== 'open') && round < piece.round - 1;
        return (
          <details key={round} open={!isOver}>
            <summary className="text-muted text-[13px] min-h-6">
              Round {round}: {count(ofRound.length, 'remark')}
            </summary>
            <ul>
              {ofRound.map((each) => (
                <RemarkThread key={each.remark.id} placed={each} all={data} canSettle={piece.canWrite} />
              ))}
            </ul>
          </details>
        );
      })}
    </section>
  );
}
