import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { IdeaShape, KeptRequestShape, SupplyShape } from '@zesting/contract';
import { Link as LinkIcon, MessagesSquare, Paperclip } from 'lucide-react';
import { Link } from 'react-router';
import { addressesQuery } from '../../api/mails';
import { ideasQuery } from '../../api/plan';
import { wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode, Tag, type Tone } from '../../ui/tags';
import { CatchIdea } from './catch-idea';
import { IdeaPanel } from './idea-panel';
import { PlanNav } from '../../parts/plan-nav';
import { useNames } from './use-names';

const STATES = ['open', 'dropped', 'used'] as const;
type State = (typeof STATES)[number];
const STATE_WORDS: Record<State, string> = { open: 'On the shelf', dropped: 'Dropped', used: 'Became pieces' };

/** The idea shelf: caught in one line, the best first. */
export function IdeasPage() {
  const { query, client } = useClients();
  const { search, put } = useSearch();
  const state = STATES.find((one) => one === search.get('shown')) ?? 'open';
  const list = useInfiniteQuery(ideasQuery(query, state));
  if (list.isError) return <Failed message={wordsOf(list.error)} onRetry={() => void list.refetch()} />;
  if (!list.data) return <Loading />;
  const [first] = list.data.pages;
  const ideas = list.data.pages.flatMap((page) => page.ideas);
  const counts = first?.counts ?? { open: 0, dropped: 0, used: 0 };
  const opened = search.get('idea');
  return (
    <>
      <PageHead nav={<PlanNav />} title="Ideas" note={`${count(counts.open, 'idea')} on the shelf${client ? ` for ${client.name}` : ''}`} />
      <CatchIdea />
      <div className="mb-3">
        <Choice
          label="Which ideas"
          value={state}
          options={STATES.map((one) => [one, `${STATE_WORDS[one]} ${counts[one] || ''}`.trim()] as const)}
          onChange={(next) => put({ shown: next === 'open' ? null : next, idea: null })}
        />
      </div>
      <div className={`grid gap-4 items-start ${first && first.supply.length > 0 ? 'lg:grid-cols-[minmax(0,1fr)_19rem]' : ''}`}>
        <div className="min-w-0 grid gap-4">
          {ideas.length === 0 ? (
            <Empty
              title={state === 'open' ? 'The shelf is empty' : `Nothing ${state === 'dropped' ? 'was dropped' : 'became a piece yet'}`}
            >
              {state === 'open' && 'Type one line above and press Enter. What is worth making can be weighed and planned later.'}
            </Empty>
          ) : (
            <ul className="card overflow-hidden" aria-label="Ideas">
              {ideas.map((idea) => (
                <IdeaLine key={idea.id} idea={idea} onOpen={() => put({ idea: idea.id })} />
              ))}
            </ul>
          )}
          {list.hasNextPage && (
            <Button className="justify-self-start" disabled={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
              Show more
            </Button>
          )}
          {first && first.requests.length > 0 && <KeptRequests requests={first.requests} />}
        </div>
        {first && first.supply.length > 0 && (
          <div className="grid gap-4">
            <Supply lines={first.supply} />
            <ByMail />
          </div>
        )}
      </div>
      {opened && <IdeaPanel key={opened} ideaId={opened} onClose={() => put({ idea: null }, { replace: true })} />}
    </>
  );
}

const FRESH: Partial<Record<IdeaShape['freshness'], [string, Tone]>> = {
  stale: ['stale', 'rhubarb'],
  fading: ['fading', 'rind'],
  fresh: ['fresh', 'pine'],
};

function IdeaLine({ idea, onOpen }: { idea: IdeaShape; onOpen: () => void }) {
  const { clientOf, client: chosen, to } = useClients();
  const client = clientOf(idea.clientId ?? '');
  const names = useNames(client);
  const fresh = FRESH[idea.freshness];
  const about = [names.pillar(idea.pillarId), names.format(idea.formatId), names.channel(idea.channelId)].filter(Boolean).join(' · ');
  return (
    <li className="border-t border-line first:border-t-0 px-4 py-2 flex flex-wrap items-center gap-x-3 gap-y-1 hover:bg-sunk">
      <Worth worth={idea.worth} isWeighed={idea.merit !== null || idea.ease !== null || idea.chance !== null} />
      {!chosen && (
        <span className="w-16 shrink-0">
          {client ? <ClientCode code={client.code} colour={client.colour} /> : <span className="text-muted text-[12px]">any client</span>}
        </span>
      )}
      <button type="button" className="font-medium text-left hover:underline min-h-6 min-w-0 break-words" onClick={onOpen}>
        {idea.title}
      </button>
      {idea.link && <LinkIcon size={14} aria-label="with a link" className="text-muted shrink-0" />}
      {idea.files > 0 && (
        <span className="text-muted text-[13px] inline-flex items-center gap-0.5">
          <Paperclip size={14} aria-hidden /> {idea.files}
          <span className="sr-only">{idea.files === 1 ? 'file' : 'files'}</span>
        </span>
      )}
      {idea.notes > 0 && (
        <span className="text-muted text-[13px] inline-flex items-center gap-0.5">
          <MessagesSquare size={14} aria-hidden /> {idea.notes}
          <span className="sr-only">said about it</span>
        </span>
      )}
      {idea.parts > 0 && <Tag tone="calm">{idea.parts + 1} in one</Tag>}
      {fresh && (
        <Tag tone={fresh[1]}>
          {fresh[0]}
          {idea.freshUntilOn && `, ${idea.freshness === 'stale' ? 'since' : 'until'} ${dayWords(idea.freshUntilOn)}`}
        </Tag>
      )}
      <span className="text-muted text-[13px] ml-auto">
        {idea.pieceId && (
          <Link to={to(`/pieces/${idea.pieceId}`)} className="text-pine underline">
            {idea.pieceTitle === idea.title ? 'Open the piece' : idea.pieceTitle}
          </Link>
        )}
        {!idea.pieceId && about}
      </span>
    </li>
  );
}

/** How good an idea is beside the others: as a bar, and in words. */
function Worth({ worth, isWeighed }: { worth: number; isWeighed: boolean }) {
  const words = isWeighed ? `${Math.round(worth * 100)} of 100` : 'not weighed yet';
  return (
    <span
      role="img"
      aria-label={`Worth: ${words}`}
      title={words}
      className="relative inline-block w-10 h-2 rounded-sm bg-sunk border border-line-strong overflow-hidden shrink-0"
    >
      {isWeighed && <span className="absolute inset-y-0 left-0 bg-pine" style={{ width: `${worth * 100}%` }} />}
    </span>
  );
}

/** Weeks of supply that are few enough to say so. */
const SHORT_WEEKS = 3;

function Supply({ lines }: { lines: readonly SupplyShape[] }) {
  return (
    <section aria-label="Supply" className="card p-3">
      <h2 className="text-base">Supply</h2>
      <p className="text-muted text-[13px] mb-2">How many weeks the ideas would feed the rhythm.</p>
      <ul className="grid gap-1 text-[13px]">
        {lines.map((line) => (
          <li key={line.pillarId ?? 'none'} className="flex items-baseline gap-2">
            <span className="flex-1 truncate" title={line.name}>
              {line.name}
            </span>
            <span className="text-muted tabular">{count(line.ideas, 'idea')}</span>
            <span
              className={`tabular whitespace-nowrap min-w-20 text-right ${line.weeks !== null && line.weeks < SHORT_WEEKS ? 'text-rhubarb font-semibold' : ''}`}
            >
              {line.weeks === null
                ? 'not asked for'
                : `${line.weeks < 10 ? Math.round(line.weeks * 10) / 10 : Math.round(line.weeks)} ${line.weeks === 1 ? 'week' : 'weeks'}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How an idea comes in by mail; nothing where no mail is taken in. */
function ByMail() {
  const { client } = useClients();
  const { data: addresses } = useQuery(addressesQuery);
  const mailbox = addresses?.find(({ clientId }) => clientId === client?.id);
  if (!mailbox) return null;
  return (
    <section aria-label="By mail" className="card p-3 text-[13px]">
      <h2 className="text-base">By mail</h2>
      <p className="text-muted">
        A mail to <span className="text-ink break-all">{mailbox.address}</span> whose subject begins with{' '}
        <span className="text-ink">Idea:</span> lands here, with what is attached.
      </p>
    </section>
  );
}

/** Requests that were kept for later: ideas of the client's own. */
function KeptRequests({ requests }: { requests: readonly KeptRequestShape[] }) {
  const { clientOf, to } = useClients();
  return (
    <section aria-labelledby="kept-requests">
      <h2 id="kept-requests" className="text-base mb-1">
        Asked for, and kept for later
      </h2>
      <ul className="card overflow-hidden">
        {requests.map((request) => (
          <li key={request.requestId} className="border-t border-line first:border-t-0">
            <Link to={to(`/requests/${request.requestId}`)} className="flex items-center gap-3 px-4 min-h-9 no-underline hover:bg-sunk">
              <ClientCode code={clientOf(request.clientId)?.code ?? ''} colour={clientOf(request.clientId)?.colour ?? 0} />
              <span className="truncate">{request.title}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
