import type { LibraryPieceShape } from '@zesting/contract';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { tagWords } from '../../lib/tags';
import { STAGE_WORDS } from '../../lib/words';
import { PlacementTag } from '../../ui/placement-tag';
import { ClientCode } from '../../ui/tags';
import { Thumbnail } from '../../ui/thumbnail';

interface FoundPieceProps {
  readonly piece: LibraryPieceShape;
  /** whether it is shown beside what is being written: then it is one client's, and narrow */
  readonly isBeside?: boolean;
  /** what can be done with it */
  readonly children?: ReactNode;
}

/** A text in which U+0002 and U+0003 stand around what was found. */
function Marked({ text }: { text: string }) {
  return text.split('\u0002').map((part, index) => {
    const [found = '', rest] = part.split('\u0003');
    return rest === undefined ? (
      part
    ) : (
      <span key={index}>
        <mark className="bg-rind-soft text-inherit rounded-sm">{found}</mark>
        {rest}
      </span>
    );
  });
}

/** A piece that was found: where its words stand, where it was seen, and what can be done with it. */
export function FoundPiece({ piece, isBeside = false, children }: FoundPieceProps) {
  const { clientOf, to } = useClients();
  const client = clientOf(piece.clientId);
  const [latest, ...more] = piece.placements;
  return (
    <li className="flex items-start gap-3 py-2.5 border-t border-line first:border-t-0">
      {!isBeside && <Thumbnail pictureId={piece.pictureId} size={56} />}
      <div className="min-w-0 flex-1">
        <p className="flex flex-wrap items-center gap-x-2">
          {client && !isBeside && <ClientCode code={client.code} colour={client.colour} name={client.name} />}
          <Link
            to={to(`/pieces/${piece.pieceId}`)}
            className="font-medium break-words min-h-6 inline-flex items-center no-underline hover:underline"
          >
            {piece.title}
          </Link>
          <span className="text-muted text-[13px]">
            {[piece.formatName, piece.pillarName, STAGE_WORDS[piece.stage].toLowerCase()].filter(Boolean).join(' · ')}
          </span>
        </p>
        {piece.snippet !== '' && (
          <p className="break-words">
            <Marked text={piece.snippet} />
          </p>
        )}
        {piece.tags.length > 0 && <p className="text-lake text-[13px] break-words">{tagWords(piece.tags)}</p>}
        {latest && (
          <p className="flex flex-wrap items-center gap-x-2 text-[13px] text-muted">
            <span>{latest.channelName}</span>
            {latest.on && <span className="tabular">{dayWords(latest.on)}</span>}
            <PlacementTag state={latest.state} />
            {more.length > 0 && <span>and {more.length} more</span>}
          </p>
        )}
        {children && <div className="flex flex-wrap gap-1 mt-0.5">{children}</div>}
      </div>
    </li>
  );
}
