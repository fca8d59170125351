import { useQuery, useSuspenseQueries } from '@tanstack/react-query';
import type { DeskRow, DeskShape } from '@zesting/contract';
import type { ReckoningList } from '@zesting/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { myStepsQuery } from '../../api/people';
import { deskListQuery, deskQuery } from '../../api/production';
import { count, dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { LIST_WORDS } from '../../lib/words';
import { BehindSources } from '../../parts/behind-sources';
import { GoesOutSoon } from '../../parts/goes-out-soon';
import { OpenObstacles } from '../../parts/open-obstacles';
import { OwnAround } from '../../parts/own-around';
import { OwnDuties } from '../../parts/own-duties';
import { RunwayStrip } from '../../parts/runway-strip';
import { Button, buttonClass } from '../../ui/button';
import { Empty, PageHead } from '../../ui/page';
import { NoticeLine, NoticeLines } from '../../ui/notice-line';
import { ClientCode, Tag, type Tone } from '../../ui/tags';
import { Wheel } from '../../ui/wheel';
import { Beginning } from './beginning';
import { DESK_LINE } from './desk-line';
import { OwnSteps } from './own-steps';
import { actionOf, reasonOf } from './reasons';

const TONES: Partial<Record<ReckoningList, Tone>> = {
  trouble: 'rhubarb',
  out_of_reach: 'rhubarb',
  overdue: 'rhubarb',
  changed_after_sign_off: 'rind',
  returned: 'rind',
  will_be_late: 'rhubarb',
  no_doer: 'rind',
  to_be_asked: 'rind',
  with_client_past_due: 'lake',
  to_be_sent: 'rind',
  with_client: 'lake',
  signed_undated: 'pine',
};

/** What has slipped, or cannot but slip: before all that the manager does with their own hands. */
const SLIPPED: ReadonlySet<ReckoningList> = new Set(['trouble', 'out_of_reach', 'overdue']);

/** What needs the manager: every open piece, most dangerous first, each with its reason and one click to the place. */
export function ManagerDesk() {
  const { query, to } = useClients();
  const [{ data: desk }, { data: own }] = useSuspenseQueries({
    queries: [deskQuery(query), myStepsQuery],
  });
  const urgent = desk.lists
    .filter(({ list }) => list !== 'on_course' && list !== 'with_client')
    .reduce((sum, { count: one }) => sum + one, 0);
  return (
    <>
      <PageHead
        title="What needs you"
        note={`${dayWords(desk.todayOn)}. ${desk.openPieces === 0 ? '' : `${urgent} of ${count(desk.openPieces, 'open piece')} to act on.`}`}
      />
      <NoticeLines>
        <GoesOutSoon />
        {desk.newRequests > 0 && (
          <NoticeLine to={to('/requests')} tone="pine" number={desk.newRequests} place="Read and decide">
            {desk.newRequests === 1 ? 'request waits' : 'requests wait'} for your word
          </NoticeLine>
        )}
        <BehindSources />
      </NoticeLines>
      <Beginning />
      <div className="flex flex-col xl:flex-row gap-4 xl:items-start">
        <div className="min-w-0 flex-1">
          <Reckoning desk={desk} of={desk.lists.filter(({ list }) => SLIPPED.has(list))} />
          <OpenObstacles />
          <OwnDuties />
          <OwnAround />
          <OwnSteps rows={own.rows} />
          <Reckoning desk={desk} of={desk.lists.filter(({ list }) => !SLIPPED.has(list))} />
          {desk.lists.length === 0 && (
            <Empty title="No piece is open">
              Accept a request, and it stands here until it is out.{' '}
              <Link to={to('/requests')} className="text-pine underline">
                Go to the requests
              </Link>
            </Empty>
          )}
        </div>
        <RunwayStrip className="xl:w-96 shrink-0" />
      </div>
    </>
  );
}

/** Lists of open pieces below each other; nothing where there are none. */
function Reckoning({ desk, of }: { desk: DeskShape; of: DeskShape['lists'] }) {
  if (of.length === 0) return null;
  return (
    <div className="card overflow-hidden mb-4">
      {of.map(({ list, count: total }) => (
        <DeskList key={list} list={list} rows={desk.rows.filter((row) => row.list === list)} total={total} />
      ))}
    </div>
  );
}

function DeskList({ list, rows: first, total }: { list: ReckoningList; rows: readonly DeskRow[]; total: number }) {
  const { query, to } = useClients();
  const [isOpen, setOpen] = useState(false);
  const whole = useQuery({ ...deskListQuery(query, list), enabled: isOpen });
  const rows = isOpen ? (whole.data?.rows ?? first) : first;
  const left = total - rows.length;
  return (
    <section aria-labelledby={`list-${list}`} className="border-t border-line first:border-t-0">
      <h2 id={`list-${list}`} className="flex items-center gap-2 px-4 pt-2.5 pb-1 text-[13px] font-sans tracking-normal">
        <Tag tone={TONES[list] ?? 'calm'}>{LIST_WORDS[list]}</Tag>
        <span className="text-muted font-normal tabular">{total}</span>
        {list === 'no_doer' && (
          <Link to={to('/production/load/propose')} className="ml-auto text-pine font-medium no-underline hover:underline">
            Propose doers
          </Link>
        )}
      </h2>
      <ul>
        {rows.map((row) => (
          <DeskLine key={row.id} row={row} />
        ))}
      </ul>
      {left > 0 && !isOpen && (
        <Button look="quiet" className="mx-1 mb-1" onClick={() => setOpen(true)}>
          Show {left} more of “{LIST_WORDS[list]}”
        </Button>
      )}
      {left > 0 && isOpen && whole.data && <p className="text-muted px-4 pb-2">{left} more: choose a client above to see them.</p>}
    </section>
  );
}

function DeskLine({ row }: { row: DeskRow }) {
  const { clientOf, to } = useClients();
  const client = clientOf(row.clientId);
  const action = actionOf(row, client?.code ?? '');
  return (
    <li className={DESK_LINE}>
      <Wheel segments={row.wheel} size={24} />
      <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
      <Link to={to(`/pieces/${row.id}`)} className="font-medium line-clamp-2 break-words no-underline hover:underline" title={row.title}>
        {row.title}
      </Link>
      <span className="text-muted hidden md:line-clamp-2" title={reasonOf(row)}>
        {reasonOf(row)}
      </span>
      <span className="tabular hidden md:block whitespace-nowrap">
        {row.aimOn ? dayWords(row.aimOn) : <span className="text-muted">no date</span>}
      </span>
      <Link to={to(action.path)} className={buttonClass('plain', 'justify-self-end text-[13px]')}>
        {action.words}
      </Link>
    </li>
  );
}
