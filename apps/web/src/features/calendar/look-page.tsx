import { useInfiniteQuery } from '@tanstack/react-query';
import type { ClientShape, LookShape } from '@zesting/contract';
import { fillShape, frameOn, type ShapeRules } from '@zesting/core';
import { Link } from 'react-router';
import { channelLookQuery } from '../../api/calendar';
import { wordsOf } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { PLACEMENT_WORDS } from '../../lib/words';
import { ChooseClient } from '../../parts/choose-client';
import { Button } from '../../ui/button';
import { Framed } from '../../ui/framed';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';

/** A channel as those see it who follow it: pictures side by side, the newest first, what is planned among them. */
export function LookPage() {
  const { client } = useClients();
  if (client) return <ClientLook key={client.id} client={client} />;
  return (
    <>
      <PageHead title="As followers see it" note="A channel in the order in which it is published." />
      <ChooseClient what="The channels of" />
    </>
  );
}

function ClientLook({ client }: { client: ClientShape }) {
  const { search, put } = useSearch();
  const { to } = useClients();
  const channel = client.channels.find(({ id }) => id === search.get('channel')) ?? client.channels[0];
  const look = useInfiniteQuery({ ...channelLookQuery(client.id, channel?.id ?? ''), enabled: channel !== undefined });
  const looks = look.data?.pages.flatMap((page) => page.looks) ?? [];
  const rules = look.data?.pages[0]?.rules;
  return (
    <>
      <PageHead title="As followers see it" note="The newest first, what is planned among them.">
        <Link to={to('/calendar')} className="text-pine underline self-center">
          Calendar
        </Link>
        <label className="flex items-center gap-1.5 text-[13px]">
          Channel
          <select className="field w-auto" value={channel?.id ?? ''} onChange={(event) => put({ channel: event.target.value })}>
            {client.channels.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </PageHead>
      {look.isError && <Failed message={wordsOf(look.error)} onRetry={() => void look.refetch()} />}
      {look.isPending && channel && <Loading />}
      {look.data && looks.length === 0 && <Empty title={`Nothing has a day on ${channel?.name ?? 'a channel'} yet`} />}
      <ul className="grid grid-cols-3 gap-1 max-w-2xl mx-auto" aria-label={`${channel?.name ?? ''}, newest first`}>
        {rules && looks.map((one) => <Tile key={one.placementId} look={one} rules={rules} />)}
      </ul>
      {look.hasNextPage && (
        <p className="text-center mt-3">
          <Button disabled={look.isFetchingNextPage} onClick={() => void look.fetchNextPage()}>
            Show older ones
          </Button>
        </p>
      )}
    </>
  );
}

/** A piece as a tile: its picture, or its title where it has none yet; what is not out says so. */
function Tile({ look, rules }: { look: LookShape; rules: ShapeRules }) {
  const { to } = useClients();
  const words = `${look.title}, ${dayWords(look.on)} at ${look.at}, ${PLACEMENT_WORDS[look.state] ?? look.state}`;
  return (
    <li>
      <Link
        to={to(`/pieces/${look.pieceId}`)}
        title={words}
        className={`relative block overflow-hidden bg-sunk ${look.state === 'out' ? '' : 'outline-2 -outline-offset-2 outline-dashed outline-line-strong'}`}
        style={{ aspectRatio: rules.ratio.replace(':', ' / ') }}
      >
        <span className="sr-only">{words}</span>
        {look.picture ? (
          <Framed
            frame={fillShape(frameOn(look.picture, rules), rules.ratio)}
            src={`/api/files/${look.picture.assetId}?width=640`}
            alt=""
          />
        ) : (
          <span aria-hidden className="absolute inset-0 grid place-items-center p-2 text-center text-[13px] text-muted">
            {look.title}
          </span>
        )}
        {look.state !== 'out' && (
          <span aria-hidden className="absolute left-1.5 bottom-1.5 rounded-sm bg-card px-1.5 py-0.5 text-[12px] tabular">
            {dayWords(look.on)}, {(PLACEMENT_WORDS[look.state] ?? look.state).toLowerCase()}
          </span>
        )}
      </Link>
    </li>
  );
}
