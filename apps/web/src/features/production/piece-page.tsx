import { useSuspenseQuery } from '@tanstack/react-query';
import type { PieceShape } from '@zesting/contract';
import { CopyPlus, Eye, Pencil } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { pieceQuery } from '../../api/production';
import { dayWords, zoneWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useReached } from '../../lib/use-reached';
import { usePresence } from '../../lib/use-live';
import { STAGE_WORDS } from '../../lib/words';
import { BeginPieceDialog } from '../../parts/begin-piece-dialog';
import { CampaignField } from '../../parts/campaign-field';
import { SubjectField } from '../../parts/subject-field';
import { LibraryPanel } from '../../parts/library/library-panel';
import { Button } from '../../ui/button';
import { ClientCode, DangerTag, Tag } from '../../ui/tags';
import { Wheel } from '../../ui/wheel';
import { BriefSection } from './brief-section';
import { ContentSection } from './content-section';
import { EditPieceDialog } from './edit-piece-dialog';
import { LeadField } from './lead-field';
import { EvergreenSection } from './evergreen-section';
import { HistorySection } from './history-section';
import { PathSection } from './path-section';
import { PlacementsSection } from './placements-section';
import { MaterialSection } from './material/material-section';
import { Talk } from '../../parts/team-notes';
import { RemarksSection } from './remarks/remarks-section';
import { OutputsSection } from './spin-offs/outputs-section';
import { SourceSection } from './spin-offs/source-section';

/** One piece: the brief beside the content, the path beside both. */
export function PiecePage() {
  const { pieceId = '' } = useParams();
  const { data: piece } = useSuspenseQuery(pieceQuery(pieceId));
  useReached('brief', true);
  useReached('talk', true);
  useReached('remarks', true);
  return (
    <>
      <PieceHead piece={piece} />
      <div className="grid gap-4 items-start lg:grid-cols-[minmax(0,1fr)_minmax(340px,400px)] xl:grid-cols-[minmax(230px,280px)_minmax(0,1fr)_minmax(360px,420px)]">
        <div className="order-1 lg:order-2 xl:order-1 lg:col-span-1 grid grid-cols-[minmax(0,1fr)] gap-4 min-w-0">
          <SourceSection piece={piece} />
          <BriefSection piece={piece} />
          <MaterialSection key={piece.id} piece={piece} />
        </div>
        <div className="order-2 lg:order-1 xl:order-2 grid grid-cols-[minmax(0,1fr)] gap-4 min-w-0">
          <RemarksSection piece={piece} />
          <ContentSection key={piece.id} piece={piece} />
          {piece.canWrite && <LibraryPanel piece={piece} />}
          <section id="talk" aria-label="Team talk" className="card p-4 scroll-mt-4">
            <h2 className="text-lg">Team talk</h2>
            <p className="text-muted text-[13px] mb-1">Only you see this; the client’s remarks stand apart.</p>
            <Talk key={piece.id} of={{ kind: 'piece', id: piece.id, canAttach: piece.canWrite }} />
          </section>
        </div>
        <div className="order-3 grid grid-cols-[minmax(0,1fr)] gap-4 lg:row-span-2 xl:row-span-1">
          <PathSection piece={piece} />
          <PlacementsSection piece={piece} />
          <EvergreenSection piece={piece} />
          <OutputsSection piece={piece} />
          <HistorySection piece={piece} />
        </div>
      </div>
    </>
  );
}

/** Who else has the piece open. */
function Others({ pieceId }: { pieceId: string }) {
  const others = usePresence(pieceId);
  return (
    <p role="status" className="flex items-center gap-1.5 text-lake text-[13px]">
      {others.length > 0 && (
        <>
          <Eye size={15} aria-hidden />
          {others.map((person) => person.name).join(', ')} {others.length === 1 ? 'has' : 'have'} this open
        </>
      )}
    </p>
  );
}

/** The pieces that it was begun from, and those that were begun from it. */
function OtherPieces({ piece }: { piece: PieceShape }) {
  const lines = [
    ['Begun from', piece.refersTo],
    ['Used again in', piece.usedIn],
  ] as const;
  return lines.map(
    ([words, others]) =>
      others.length > 0 && (
        <p key={words} className="text-[13px] text-muted">
          {words}{' '}
          {others.map(({ id, title, number }, index) => (
            <span key={id}>
              {index > 0 && ', '}
              <Link to={`/pieces/${id}`} className="text-pine underline">
                {title}
              </Link>{' '}
              (no. {number})
            </span>
          ))}
        </p>
      ),
  );
}

function PieceHead({ piece }: { piece: PieceShape }) {
  const { clientOf } = useClients();
  const client = clientOf(piece.clientId);
  const { opened, open, close } = useOpened();
  const pillar = piece.pillars.find((candidate) => candidate.id === piece.pillarId);
  return (
    <header className="flex flex-wrap items-center gap-x-4 gap-y-2 mb-4">
      <Wheel segments={piece.wheel} size={48} />
      <div className="min-w-0 flex-1 basis-72">
        <p className="flex items-center gap-2 text-muted">
          {client && <ClientCode code={client.code} colour={client.colour} />}
          <span>
            {client?.name} · {piece.formatName}
            {pillar && ` · ${pillar.name}`} · no. {piece.number}
          </span>
        </p>
        <div className="flex items-center gap-1">
          <h1 className="text-2xl leading-tight break-words">{piece.title}</h1>
          {piece.canManage && (
            <Button
              look="quiet"
              className="px-2"
              aria-label="Edit title and pillar"
              title="Edit title and pillar"
              onClick={() => open('edit')}
            >
              <Pencil size={15} aria-hidden />
            </Button>
          )}
          {piece.canManage && (
            <Button
              look="quiet"
              className="px-2"
              aria-label="Begin another from this"
              title="Begin another from this"
              onClick={() => open('again')}
            >
              <CopyPlus size={15} aria-hidden />
            </Button>
          )}
        </div>
        <OtherPieces piece={piece} />
        {!piece.canManage && <LeadField piece={piece} />}
        {client && piece.canManage && (
          <div className="flex flex-wrap items-center gap-x-4 gap-y-1 min-h-8">
            <LeadField piece={piece} />
            <CampaignField client={client} pieceId={piece.id} campaignId={piece.campaignId} />
            <SubjectField client={client} of={{ kind: 'piece', id: piece.id }} />
          </div>
        )}
      </div>
      <Others pieceId={piece.id} />
      <div className="flex flex-wrap items-center gap-2">
        <Tag
          tone={
            piece.stage === 'with_client'
              ? 'lake'
              : piece.stage === 'approved' || piece.stage === 'scheduled' || piece.stage === 'published'
                ? 'pine'
                : 'calm'
          }
        >
          {STAGE_WORDS[piece.stage]}
        </Tag>
        {piece.round > 1 && (
          <Tag tone={piece.round > piece.roundsAgreed ? 'rhubarb' : 'rind'}>
            Round {piece.round} of {piece.roundsAgreed} agreed
          </Tag>
        )}
        <DangerTag danger={piece.danger} />
        <span className="tabular font-medium">
          {piece.aimOn
            ? `${dayWords(piece.aimOn)}${client ? `, ${zoneWords(client.zone)}` : ''}`
            : piece.stage === 'published'
              ? 'All of it is out'
              : 'No date yet'}
        </span>
      </div>
      {piece.canManage && opened === 'again' && <BeginPieceDialog from={piece} onClose={close} />}
      {piece.canManage && opened === 'edit' && <EditPieceDialog piece={piece} onClose={close} />}
    </header>
  );
}
