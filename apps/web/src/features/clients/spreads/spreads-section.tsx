import { useQuery } from '@tanstack/react-query';
import type { ClientPageShape, SpreadLineShape, SpreadShape } from '@zesting/contract';
import { Plus } from 'lucide-react';
import { toast } from 'sonner';
import { spreadsQuery } from '../../../api/spin-offs';
import { call, wordsOf } from '../../../lib/api';
import { count, dayWords } from '../../../lib/format';
import { useWrite } from '../../../lib/queries';
import { offsetWords } from '../../../lib/spin-off-words';
import { useOpened } from '../../../lib/use-opened';
import { Button } from '../../../ui/button';
import { Empty, Failed, Loading } from '../../../ui/page';
import { PutAway } from '../../../ui/put-away';
import { Tag } from '../../../ui/tags';
import { OutlookDialog } from './outlook-dialog';
import { SpreadDialog } from './spread-dialog';

/** What is made from each source of a kind: drawn up, looked at for what it would come to, and put to use. */
export function SpreadsSection({ client }: { client: ClientPageShape }) {
  const found = useQuery(spreadsQuery(client.id));
  const { opened, open, close } = useOpened();
  const restore = useWrite((id: string) => call(`/spreads/${id}/archive`, { method: 'POST', body: { archived: false } }));
  const spreads = found.data?.spreads ?? [];
  const edited = spreads.find(({ id }) => opened === `spread-${id}`);
  const reckoned = spreads.find(({ id }) => opened === `outlook-${id}`);
  return (
    <section aria-labelledby="spreads">
      <div className="flex flex-wrap items-center gap-3 mb-1">
        <h2 id="spreads" className="text-lg">
          Spreads
        </h2>
        <Button className="ml-auto" onClick={() => open('new-spread')}>
          <Plus size={15} aria-hidden /> New spread
        </Button>
      </div>
      <p className="text-muted mb-3 max-w-3xl">
        One piece becomes many: what is made from a source, for which channel, on which day from its own. A spread that is in use is offered
        on each source of its kind, and nothing is made until somebody has looked.
      </p>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && spreads.length === 0 && (
        <Empty title="No spread is kept yet">
          Begin with what you make from an article or a long clip anyway: the short clips, the picture, the line in the newsletter.
        </Empty>
      )}
      <ul className="grid gap-3 max-w-4xl">
        {spreads.map((spread) => (
          <SpreadCard key={spread.id} spread={spread} onOpen={open} />
        ))}
      </ul>
      <div className="mt-3">
        <PutAway items={found.data?.archived ?? []} title="Put away" action="take back" onBack={(id) => restore.mutate(id)} />
      </div>
      {opened === 'new-spread' && <SpreadDialog client={client} spread={undefined} onClose={close} />}
      {edited && <SpreadDialog key={edited.id} client={client} spread={edited} onClose={close} />}
      {reckoned && <OutlookDialog key={reckoned.id} spread={reckoned} onClose={close} />}
    </section>
  );
}

function SpreadCard({ spread, onOpen }: { spread: SpreadShape; onOpen: (name: string) => void }) {
  const { id, name, formatName, lines, usedSince, made } = spread;
  const use = useWrite((isUsed: boolean) => call(`/spreads/${id}/use`, { method: 'POST', body: { isUsed } }));
  const put = (isUsed: boolean) =>
    use.mutate(isUsed, { onSuccess: () => toast(isUsed ? `${name} is offered on its sources now.` : `${name} is not offered any more.`) });
  return (
    <li className="card px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 mb-1">
        <h3 className="text-base break-words min-w-0">{name}</h3>
        {usedSince ? <Tag tone="pine">In use since {dayWords(usedSince)}</Tag> : <Tag>Not in use</Tag>}
        <span className="text-muted text-[13px]">
          from {formatName ?? 'any kind of piece'} · {made === 0 ? 'nothing made yet' : `${count(made, 'piece')} made`}
        </span>
        <span className="ml-auto flex flex-wrap gap-1">
          <Button look="quiet" aria-label={`What it comes to: ${name}`} onClick={() => onOpen(`outlook-${id}`)}>
            What it comes to
          </Button>
          <Button look="quiet" aria-label={`Change… ${name}`} onClick={() => onOpen(`spread-${id}`)}>
            Change…
          </Button>
          <Button
            disabled={use.isPending}
            aria-label={`${usedSince ? 'Stop using' : 'Put to use'}: ${name}`}
            onClick={() => put(!usedSince)}
          >
            {usedSince ? 'Stop using' : 'Put to use'}
          </Button>
        </span>
      </div>
      <ul className="text-[13px]">
        {lines.map((line) => (
          <Line key={line.key} line={line} />
        ))}
      </ul>
    </li>
  );
}

function Line({ line }: { line: SpreadLineShape }) {
  const needs = [line.needsCopy ? 'new text' : '', line.needsPicture ? 'new picture' : '', line.shape === 'slides' ? 'slides' : ''].filter(
    Boolean,
  );
  return (
    <li className="grid sm:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)_minmax(0,1fr)_minmax(0,2fr)] gap-x-3 py-1 border-t border-line first:border-t-0">
      <span className="font-medium break-words">{line.name || 'As its source'}</span>
      <span className="break-words">{line.channelName ?? 'no channel yet'}</span>
      <span className="text-muted">{offsetWords(line.offset)}</span>
      <span className="text-muted break-words">{[...needs, line.change].filter(Boolean).join(' · ')}</span>
    </li>
  );
}
