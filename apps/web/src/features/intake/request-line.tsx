import type { RequestRow } from '@zesting/contract';
import { isOpenRequest } from '@zesting/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { count, dayWords, instantWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { REQUEST_STATE_WORDS } from '../../lib/words';
import { ClientCode, Tag } from '../../ui/tags';

interface LineProps {
  readonly row: RequestRow;
  readonly isChosen: boolean;
  /** whether it is among several that something is done with; null where none are */
  readonly tick: { readonly on: boolean; readonly put: (on: boolean) => void } | null;
}

/** A request in the list. */
export function RequestLine({ row, isChosen, tick }: LineProps) {
  const { clientOf, to } = useClients();
  const { search } = useSearch();
  const client = clientOf(row.clientId);
  const kept = new URLSearchParams([...search].filter(([name]) => ['shown', 'whose', 'form', 'order', 'stands'].includes(name))).toString();
  const isUnread = !row.isRead && row.state === 'new';
  return (
    <li className="border-t border-line first:border-t-0 flex">
      {tick && (
        <label className="grid place-items-center w-10 shrink-0 cursor-pointer">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            aria-label={`${row.title}, among several`}
            checked={tick.on}
            onChange={(event) => tick.put(event.target.checked)}
          />
        </label>
      )}
      <Link
        to={to(`/requests/${row.id}${kept ? `?${kept}` : ''}`)}
        aria-current={isChosen ? 'true' : undefined}
        className={`block flex-1 min-w-0 px-4 py-2.5 no-underline border-l-4 ${isChosen ? 'bg-sunk border-pine' : 'border-transparent hover:bg-sunk'}`}
      >
        <span className="flex items-center gap-2">
          <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} />
          <span className={`truncate ${isUnread ? 'font-semibold' : 'font-medium'}`}>{row.title}</span>
          {isUnread && (
            <span className="ml-auto">
              <Tag tone="pine">New</Tag>
            </span>
          )}
          {row.state !== 'new' && (
            <span className="ml-auto text-muted text-[12px] whitespace-nowrap">{REQUEST_STATE_WORDS[row.state]}</span>
          )}
        </span>
        <span className="flex justify-between gap-3 text-muted text-[13px]">
          <span className="truncate">
            {row.requesterName}, {instantWords(row.receivedAt)}
          </span>
          {row.wishOn && <span className="whitespace-nowrap tabular">for {dayWords(row.wishOn)}</span>}
        </span>
        {isOpenRequest(row.state) && <Standing row={row} />}
      </Link>
    </li>
  );
}

/** Why a request is where it is: by when it must be begun, what stands in its way, who asks, how long it waits. */
function Standing({ row: { slackDays, beginBy, stands, age, weight, wishOn } }: { row: RequestRow }) {
  const said: ReactNode[] = [];
  if (stands === 'not_by_then' || stands === 'later')
    said.push(
      <span key="day" className={stands === 'later' ? 'text-rind font-medium' : 'text-rhubarb font-medium'}>
        {slackDays !== null && slackDays < 0 && count(-slackDays, 'day')} {stands === 'later' ? 'later than wished' : 'too soon'}
      </span>,
    );
  else if (beginBy !== null && wishOn !== null) said.push(<span key="day">begin by {dayWords(beginBy)}</span>);
  if (stands === 'ask') said.push(<span key="ask">something missing</span>);
  if (age?.isLate)
    said.push(
      <span key="age" className="text-rhubarb font-medium">
        waits {count(age.days, 'day')}, {age.promised} promised
      </span>,
    );
  else if (age?.dueOn) said.push(<span key="age">answer by {dayWords(age.dueOn)}</span>);
  if (weight > 1) said.push(<span key="weight">{weight === 3 ? 'counts most' : 'counts more'}</span>);
  if (said.length === 0) return null;
  return <span className="flex flex-wrap gap-x-3 text-muted text-[13px]">{said}</span>;
}
