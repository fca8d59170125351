import { useInfiniteQuery } from '@tanstack/react-query';
import { isOpenRequest } from '@zesting/core';
import { useState, type KeyboardEvent } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { mailsQuery } from '../../api/mails';
import { requestsQuery } from '../../api/requests';
import { wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button, buttonClass } from '../../ui/button';
import { Menu, MenuItem } from '../../ui/menu';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { DatesDialog } from './dates-dialog';
import { RequestFilters, useAsked } from './request-filters';
import { RequestLine } from './request-line';
import { RequestPane } from './request-pane';
import { SeveralBar } from './several-bar';
import { TakeDownDialog } from './take-down-dialog';

/** Requests: the list with unread first, the chosen one beside it. */
export function RequestsPage() {
  const { requestId } = useParams();
  const { query, to, client } = useClients();
  const navigate = useNavigate();
  const asking = useAsked();
  const { opened, open: openDialog, close } = useOpened();
  const [ticked, setTicked] = useState<ReadonlySet<string> | null>(null);
  const list = useInfiniteQuery(requestsQuery([query, asking.query].filter(Boolean).join('&')));
  if (list.isError) return <Failed message={wordsOf(list.error)} onRetry={() => void list.refetch()} />;
  if (!list.data) return <Loading />;
  const rows = list.data.pages.flatMap((page) => page.items);
  const chosen = requestId ?? rows[0]?.id;
  const counts = list.data.pages[0]?.counts ?? [];
  const shown = counts.filter(({ clientId }) => !client || client.id === clientId);
  const [open, asked] = [sum(shown.map((one) => one.open)), sum(shown.map((one) => one.asked))];
  const note = `${open - asked} to decide${asked > 0 ? `, ${asked} with the requester` : ''}`;
  return (
    <>
      <PageHead title="Requests" note={note}>
        <Button onClick={() => openDialog('take-down')}>Take one down…</Button>
        <Menu label="More ways in" className={buttonClass('plain')} trigger="More ways in">
          <MenuItem onSelect={() => openDialog('dates')}>Paste a month…</MenuItem>
          <MenuItem onSelect={() => void navigate(to('/requests/table'))}>From a table (CSV, XLSX)</MenuItem>
          <MenuItem onSelect={() => void navigate(to('/requests/mails'))}>Mail set aside</MenuItem>
        </Menu>
        {rows.some(({ state }) => isOpenRequest(state)) && (
          <Button aria-pressed={ticked !== null} onClick={() => setTicked(ticked === null ? new Set() : null)}>
            Several
          </Button>
        )}
      </PageHead>
      <RequestFilters asked={asking} counts={counts} />
      {opened === 'take-down' && <TakeDownDialog onClose={close} onTaken={(id) => void navigate(to(`/requests/${id}`))} />}
      {opened === 'dates' && <DatesDialog onClose={close} />}
      <WaitingMail />
      {ticked && (
        <SeveralBar rows={rows.filter(({ id, state }) => ticked.has(id) && isOpenRequest(state))} onDone={() => setTicked(null)} />
      )}
      {rows.length === 0 && asking.isNarrowed ? (
        <Empty title="No request is like that">
          <button
            type="button"
            className="text-pine underline min-h-8"
            onClick={() => asking.ask({ shown: null, whose: null, form: null, order: null, stands: null })}
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

const sum = (numbers: readonly number[]): number => numbers.reduce((all, one) => all + one, 0);

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
