import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { RequestCountShape, RequestRow } from '@zesting/contract';
import { isId, isOpenRequest, STANDS, type Stands } from '@zesting/core';
import { useState, type KeyboardEvent, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { formsQuery } from '../../api/forms';
import { mailsQuery } from '../../api/mails';
import { peopleQuery } from '../../api/people';
import { requestsQuery } from '../../api/requests';
import { wordsOf } from '../../lib/api';
import { count, dayWords, instantWords } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { REQUEST_STATE_WORDS } from '../../lib/words';
import { Button, buttonClass } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Menu, MenuItem } from '../../ui/menu';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode, Tag } from '../../ui/tags';
import { DatesDialog } from './dates-dialog';
import { RequestPane } from './request-pane';
import { SeveralBar } from './several-bar';
import { TakeDownDialog } from './take-down-dialog';

const SHOWN = [
  ['open', 'To decide'],
  ['ideas', 'Ideas'],
  ['all', 'All'],
] as const;

const STANDS_WORDS: Record<Stands, string> = {
  not_by_then: 'Not by that day',
  later: 'Later than wished',
  ask: 'Something missing',
  answer_late: 'Answer promised sooner',
};

/** What the address asks for, beside the client. */
function useAsked() {
  const { search, put } = useSearch();
  const { personId } = useSession();
  const [shown] = SHOWN.find(([name]) => name === search.get('shown')) ?? ['all' as const];
  const stands = STANDS.find((word) => word === search.get('stands'));
  const whose = search.get('whose');
  const ownerId = whose === 'mine' ? personId : whose && isId(whose) ? whose : null;
  const byDanger = search.get('order') === 'danger';
  const formId = search.get('form');
  const query = new URLSearchParams({
    ...(shown === 'all' ? {} : { shown }),
    ...(stands ? { stands } : {}),
    ...(shown === 'open' && byDanger ? { order: 'danger' } : {}),
    ...(ownerId ? { ownerId } : {}),
    ...(formId && isId(formId) ? { formId } : {}),
  }).toString();
  const ask = (changes: Record<string, string | null>) => put(changes, { replace: true });
  return { shown, stands, whose, byDanger, formId, query, ask, isNarrowed: query !== '' } as const;
}

/** Requests: the list with unread first, the chosen one beside it. */
export function RequestsPage() {
  const { requestId } = useParams();
  const { query, to } = useClients();
  const navigate = useNavigate();
  const asked = useAsked();
  const { opened, open, close } = useOpened();
  const [ticked, setTicked] = useState<ReadonlySet<string> | null>(null);
  const list = useInfiniteQuery(requestsQuery([query, asked.query].filter(Boolean).join('&')));
  if (list.isError) return <Failed message={wordsOf(list.error)} onRetry={() => void list.refetch()} />;
  if (!list.data) return <Loading />;
  const rows = list.data.pages.flatMap((page) => page.items);
  const chosen = requestId ?? rows[0]?.id;
  const waiting = rows.filter((row) => row.state === 'asked_back').length;
  const note = `${rows.filter((row) => row.state === 'new').length} to decide${waiting > 0 ? `, ${waiting} with the requester` : ''}`;
  return (
    <>
      <PageHead title="Requests" note={note}>
        <Button onClick={() => open('take-down')}>Take one down…</Button>
        <Menu label="More ways in" className={buttonClass('plain')} trigger="More ways in">
          <MenuItem onSelect={() => open('dates')}>Paste a month…</MenuItem>
          <MenuItem onSelect={() => void navigate(to('/requests/table'))}>From a table (CSV, XLSX)</MenuItem>
          <MenuItem onSelect={() => void navigate(to('/requests/mails'))}>Mail set aside</MenuItem>
        </Menu>
        {rows.some(({ state }) => isOpenRequest(state)) && (
          <Button aria-pressed={ticked !== null} onClick={() => setTicked(ticked === null ? new Set() : null)}>
            Several
          </Button>
        )}
      </PageHead>
      <div className="flex flex-wrap items-center gap-2 mb-3">
        <ClientCounts counts={list.data.pages[0]?.counts ?? []} />
        <span className="flex-1" />
        <FormChoice value={asked.formId} onChange={(form) => asked.ask({ form })} />
        <select
          className="field w-auto max-w-48 min-h-8"
          aria-label="What stands in the way"
          value={asked.stands ?? ''}
          onChange={(event) => asked.ask({ stands: event.target.value || null })}
        >
          <option value="">Any standing</option>
          {STANDS.map((word) => (
            <option key={word} value={word}>
              {STANDS_WORDS[word]}
            </option>
          ))}
        </select>
        <WhoseChoice value={asked.whose} onChange={(whose) => asked.ask({ whose })} />
        <Choice
          label="What is shown"
          value={asked.shown}
          options={SHOWN}
          onChange={(shown) => asked.ask({ shown: shown === 'all' ? null : shown })}
        />
        {asked.shown === 'open' && (
          <Choice
            label="Order"
            value={asked.byDanger ? 'danger' : 'newest'}
            options={[
              ['newest', 'Newest'],
              ['danger', 'First to begin'],
            ]}
            onChange={(order) => asked.ask({ order: order === 'danger' ? order : null })}
          />
        )}
      </div>
      {opened === 'take-down' && <TakeDownDialog onClose={close} onTaken={(id) => void navigate(to(`/requests/${id}`))} />}
      {opened === 'dates' && <DatesDialog onClose={close} />}
      <WaitingMail />
      {ticked && (
        <SeveralBar rows={rows.filter(({ id, state }) => ticked.has(id) && isOpenRequest(state))} onDone={() => setTicked(null)} />
      )}
      {rows.length === 0 && asked.isNarrowed ? (
        <Empty title="No request is like that">
          <button
            type="button"
            className="text-pine underline min-h-8"
            onClick={() => asked.ask({ shown: null, whose: null, form: null, order: null, stands: null })}
          >
            Show all
          </button>
        </Empty>
      ) : rows.length === 0 ? (
        <Empty title="No request has come in yet">
          Hand out a form’s link, and what clients ask for arrives here.{' '}
          <Link to="/links" className="text-pine underline">
            Show the links
          </Link>
        </Empty>
      ) : (
        <div className="grid gap-4 grid-cols-[minmax(0,1fr)] md:grid-cols-[minmax(280px,360px)_minmax(0,1fr)] items-start">
          <nav aria-label="Requests" className="card overflow-hidden" onKeyDown={goByArrows}>
            <ul>
              {rows.map((row) => (
                <RequestLine
                  key={row.id}
                  row={row}
                  isChosen={row.id === chosen}
                  tick={
                    ticked && isOpenRequest(row.state)
                      ? {
                          on: ticked.has(row.id),
                          put: (on) =>
                            setTicked((before) => new Set([...(before ?? [])].filter((id) => id !== row.id).concat(on ? row.id : []))),
                        }
                      : null
                  }
                />
              ))}
            </ul>
            {list.hasNextPage && (
              <Button look="quiet" className="w-full" onClick={() => void list.fetchNextPage()}>
                Show older ones
              </Button>
            )}
          </nav>
          {chosen && <RequestPane key={chosen} requestId={chosen} marksRead={requestId !== undefined} />}
        </div>
      )}
    </>
  );
}

/** Says that mail waits which may hold requests. */
function WaitingMail() {
  const { query, to } = useClients();
  const { data, hasNextPage } = useInfiniteQuery(mailsQuery('waiting', query));
  const waiting = data?.pages.flatMap((page) => page.items) ?? [];
  if (waiting.length === 0) return null;
  const names = [...new Set(waiting.map(({ fromName }) => fromName))];
  return (
    <p className="card border-l-4 border-l-rind px-3 py-2 mb-3">
      {count(waiting.length, 'mail')} {hasNextPage && 'and more '}set aside, from {names.slice(0, 3).join(', ')}
      {names.length > 3 && ' and others'}.{' '}
      <Link to={to('/requests/mails')} className="text-pine underline">
        Say what {waiting.length === 1 ? 'it is' : 'they are'}
      </Link>
    </p>
  );
}

/** The arrows go from one request to the next; Enter opens it. */
function goByArrows(event: KeyboardEvent<HTMLElement>): void {
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
  const links = [...event.currentTarget.querySelectorAll<HTMLElement>('a')];
  const at = links.findIndex((link) => link === document.activeElement);
  const next = links[at + (event.key === 'ArrowDown' ? 1 : -1)];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

function FormChoice({ value, onChange }: { value: string | null; onChange: (formId: string | null) => void }) {
  const { query } = useClients();
  const { data } = useInfiniteQuery(formsQuery(query));
  const forms = data?.pages.flatMap((page) => page.items) ?? [];
  if (forms.length < 2) return null;
  return (
    <select
      className="field w-auto max-w-48 min-h-8"
      aria-label="Form"
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || null)}
    >
      <option value="">By any form</option>
      {forms.map(({ id, title }) => (
        <option key={id} value={id}>
          {title}
        </option>
      ))}
    </select>
  );
}

/** How many wait for a decision, by client; each is a way to that client's alone, and back to all. */
function ClientCounts({ counts }: { counts: readonly RequestCountShape[] }) {
  const { clients, client } = useClients();
  const { put } = useSearch();
  if (clients.length < 2) return null;
  const all = counts.reduce((sum, { open }) => sum + open, 0);
  const chip = 'inline-flex items-center gap-1.5 rounded-full border px-2.5 min-h-8 text-[13px]';
  const look = (isOn: boolean) => (isOn ? 'border-pine bg-pine-soft font-semibold' : 'border-line-strong bg-card hover:bg-sunk');
  return (
    <div role="group" aria-label="To decide, by client" className="flex flex-wrap gap-1.5">
      <button type="button" aria-pressed={!client} className={`${chip} ${look(!client)}`} onClick={() => put({ client: null })}>
        All <span className="tabular">{all}</span>
      </button>
      {clients.flatMap(({ id, code, colour, name }) => {
        const found = counts.find(({ clientId }) => clientId === id);
        // where one is chosen, nothing of the others is shown
        if (client ? client.id !== id : !found) return [];
        return [
          <button
            key={id}
            type="button"
            aria-pressed={client?.id === id}
            className={`${chip} ${look(client?.id === id)}`}
            onClick={() => put({ client: code })}
          >
            <ClientCode code={code} colour={colour} name={name} />
            <span className="tabular">{found?.open ?? 0}</span>
            <span className="sr-only">to decide{(found?.unread ?? 0) > 0 && `, ${found?.unread} unread`}</span>
            {(found?.unread ?? 0) > 0 && <span aria-hidden className="size-2 rounded-full bg-pine" />}
          </button>,
        ];
      })}
    </div>
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

/** Who answers for what is shown. */
function WhoseChoice({ value, onChange }: { value: string | null; onChange: (whose: string | null) => void }) {
  const { personId } = useSession();
  const { data: people } = useQuery(peopleQuery);
  const others = people?.filter(({ id, active, role }) => active && id !== personId && (role === 'lead' || role === 'manager')) ?? [];
  return (
    <select
      className="field w-auto max-w-40 min-h-8"
      aria-label="Whose"
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || null)}
    >
      <option value="">Everybody’s</option>
      <option value="mine">Mine</option>
      {others.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

interface LineProps {
  readonly row: RequestRow;
  readonly isChosen: boolean;
  /** whether it is among several that something is done with; null where none are */
  readonly tick: { readonly on: boolean; readonly put: (on: boolean) => void } | null;
}

function RequestLine({ row, isChosen, tick }: LineProps) {
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
