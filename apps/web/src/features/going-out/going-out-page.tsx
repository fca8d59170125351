import { useQuery } from '@tanstack/react-query';
import type { GoingOutRowShape, GoingOutShape } from '@zesting/contract';
import { OctagonPause, Package } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { followUpsQuery } from '../../api/follow-ups';
import { goingOutQuery } from '../../api/going-out';
import { sendingNowQuery } from '../../api/sending';
import { wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { Tag } from '../../ui/tags';
import { dayThere, daysOf, SHOWN, type GoingOutDay, type Shown } from './days';
import { FollowUps } from './follow-ups';
import { GoingOutRow } from './going-out-row';
import { OutDialog } from '../../parts/out-dialog';
import { PackDialog } from './pack-dialog';
import { PostDialog } from './post-dialog';
import { SendDialog } from './send-dialog';
import { SendingStops, StopsDialog } from './sending-stops';
import { SettleDialog } from './settle-dialog';

/** What is published today and over the next seven days: what speaks against it, who has looked at it, and taking it out by hand. */
export function GoingOutPage() {
  const { query, to, client } = useClients();
  const { opened, open, close } = useOpened();
  const { search, put } = useSearch();
  const goingOut = useQuery(goingOutQuery(query));
  const sending = useQuery(sendingNowQuery(query));
  const followUps = useQuery(followUpsQuery(query));
  const { role } = useSession();
  const manages = role === 'lead' || role === 'manager';
  const shown = SHOWN.find((one) => one === search.get('shown')) ?? 'all';
  return (
    <>
      <PageHead title="Going out" note="Today and the next seven days, each by its client’s own clock.">
        <Link to={to('/calendar')} className="text-pine underline self-center">
          Calendar
        </Link>
        {sending.data && sending.data.channels.length > 0 && manages && (
          <Button onClick={() => open('stops')}>
            <OctagonPause size={15} aria-hidden /> Stop sending
          </Button>
        )}
        {client && (
          <Button onClick={() => open('pack')}>
            <Package size={15} aria-hidden /> Pack
          </Button>
        )}
        <Choice<Shown>
          label="What is shown"
          value={shown}
          options={[
            ['all', 'All'],
            ['unready', 'Not ready'],
            ['unchecked', 'Not looked at'],
          ]}
          onChange={(next) => put({ shown: next === 'all' ? null : next })}
        />
      </PageHead>
      {sending.data && <SendingStops now={sending.data} />}
      {goingOut.isError && <Failed message={wordsOf(goingOut.error)} onRetry={() => void goingOut.refetch()} />}
      {goingOut.isPending && <Loading />}
      {goingOut.data && <Days goingOut={goingOut.data} shown={shown} />}
      {shown === 'all' && followUps.data && (followUps.data.open.length > 0 || followUps.data.settled.length > 0) && (
        <Section id="around" title="Before and after" note="What is put in by hand, and done once it is out, on its days.">
          <FollowUps followUps={followUps.data} />
        </Section>
      )}
      {sending.data && opened === 'stops' && <StopsDialog now={sending.data} onClose={close} />}
      {client && opened === 'pack' && <PackDialog client={client} onClose={close} />}
    </>
  );
}

function Days({ goingOut, shown }: { goingOut: GoingOutShape; shown: Shown }) {
  const { to } = useClients();
  const { todayOn } = useSession();
  const { opened, open, close } = useOpened();
  const { rows, missed, unaddressed, clocks } = goingOut;
  const days = daysOf(rows, shown, todayOn);
  const all = [...rows, ...missed, ...unaddressed];
  const openedAs = (name: string, ...states: GoingOutRowShape['state'][]) =>
    all.find(({ id, state }) => (states.length === 0 ? state !== 'out' : states.includes(state)) && opened === `${name}-${id}`);
  const taken = openedAs('post');
  const seen = openedAs('seen', 'out');
  const sent = openedAs('send', 'scheduled', 'pencilled', 'failed', 'missed');
  const unsure = openedAs('settle', 'unsure');
  const list = (of: readonly GoingOutRowShape[]) =>
    of.map((row) => <GoingOutRow key={row.id} row={row} there={dayThere(row, clocks, todayOn)} onOpen={open} />);
  return (
    <>
      {shown !== 'unchecked' && missed.length > 0 && (
        <Section
          id="missed"
          title="Did not go out, or nobody knows"
          note="Their time passed, the channel refused them, or it does not say. They go out again, by hand, or at a new time."
        >
          {list(missed)}
          <More hidden={goingOut.missedHidden} />
        </Section>
      )}
      {days.length === 0 && (
        <Empty
          title={
            rows.length === 0
              ? 'Nothing goes out in the next seven days'
              : shown === 'unready'
                ? 'All of it is ready'
                : 'All of it was looked at'
          }
        >
          {rows.length === 0 && (
            <>
              What is given a day stands here.{' '}
              <Link to={to('/calendar')} className="text-pine underline">
                Go to the calendar
              </Link>
            </>
          )}
        </Empty>
      )}
      {days.map((day) => (
        <Section
          key={day.on}
          id={`day-${day.on}`}
          title={day.name ? `${day.name}, ${dayWords(day.on)}` : dayWords(day.on)}
          aside={<Counts day={day} />}
        >
          {list(day.rows)}
        </Section>
      ))}
      <More hidden={goingOut.hidden} />
      {shown === 'all' && unaddressed.length > 0 && (
        <Section
          id="unaddressed"
          title="Out, but nobody said where"
          note="Their address is asked for: the client looks for it, and results hang on it."
        >
          {list(unaddressed)}
          <More hidden={goingOut.unaddressedHidden} />
        </Section>
      )}
      {taken && <PostDialog key={taken.id} row={taken} onClose={close} />}
      {sent && <SendDialog key={sent.id} row={sent} onClose={close} />}
      {unsure && <SettleDialog key={unsure.id} row={unsure} onClose={close} />}
      {seen && <OutDialog key={seen.id} placement={seen} onClose={close} />}
    </>
  );
}

interface SectionProps {
  readonly id: string;
  readonly title: string;
  readonly note?: string;
  readonly aside?: ReactNode;
  readonly children: ReactNode;
}

function Section({ id, title, note, aside, children }: SectionProps) {
  return (
    <section aria-labelledby={id} className="mb-5">
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 mb-1.5">
        <h2 id={id} className="text-lg">
          {title}
        </h2>
        {note && <p className="text-muted text-[13px]">{note}</p>}
        {aside}
      </div>
      <ul className="card overflow-hidden">{children}</ul>
    </section>
  );
}

/** How a day stands, in a few words. */
function Counts({ day }: { day: GoingOutDay }) {
  const open = day.total - day.out;
  return (
    <span className="flex flex-wrap items-center gap-1.5 text-[13px] text-muted tabular">
      {day.out > 0 && <span>{day.out} out</span>}
      {open > 0 && <span>{count(open, 'goes', 'go')} out</span>}
      {day.unready > 0 && <Tag tone="rhubarb">{day.unready} not ready</Tag>}
      {day.unchecked > 0 && <span>{day.unchecked} not looked at</span>}
      {open > 0 && day.unready === 0 && day.unchecked === 0 && <Tag tone="pine">All ready and looked at</Tag>}
    </span>
  );
}

const More = ({ hidden }: { hidden: number }) =>
  hidden > 0 ? <p className="text-muted px-4 py-2">{hidden} more: choose a client above to see them.</p> : null;
