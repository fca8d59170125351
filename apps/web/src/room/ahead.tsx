import type { RoomEntryShape, RoomRequestShape, RoomViewShape } from '@zesting/contract';
import { count, dayWords, instantWords, zoneWords } from '../lib/format';
import { Tag, type Tone } from '../ui/tags';

const STATES: Record<RoomEntryShape['state'], { words: string; tone: Tone }> = {
  pencilled: { words: 'Planned', tone: 'calm' },
  scheduled: { words: 'Approved', tone: 'pine' },
  out: { words: 'Out', tone: 'pine' },
};
const REQUESTS: Record<RoomRequestShape['state'], { words: string; tone: Tone }> = {
  new: { words: 'We look at it', tone: 'lake' },
  accepted: { words: 'Accepted', tone: 'pine' },
  asked_back: { words: 'We have a question', tone: 'rind' },
  declined: { words: 'Not taken on', tone: 'calm' },
  idea: { words: 'Kept for later', tone: 'lake' },
  merged: { words: 'Taken together with another', tone: 'lake' },
  withdrawn: { words: 'Taken back', tone: 'calm' },
};

/** The weeks ahead, the contact's own requests and those of others of the client, for who may look. */
export function Ahead({ view, zone }: { view: RoomViewShape; zone: string }) {
  const days = [...new Set(view.entries.map((entry) => entry.on))];
  return (
    <>
      <section aria-label="The weeks ahead" className="card p-4 mb-5">
        <h2 className="text-lg">The weeks ahead</h2>
        <p className="text-muted text-[13px] mb-2">Times are {zoneWords(zone)} time.</p>
        {days.length === 0 && <p className="text-muted">Nothing is on your calendar for the next five weeks yet.</p>}
        <ul className="grid gap-2">
          {days.map((on) => (
            <li key={on} className="grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-3 border-t border-line pt-2 first:border-t-0 first:pt-0">
              <span className="font-medium tabular">{dayWords(on)}</span>
              <ul className="grid gap-1">
                {view.entries
                  .filter((entry) => entry.on === on)
                  .map((entry, index) => (
                    <li key={index} className="flex flex-wrap items-baseline gap-x-2">
                      <span className="tabular text-muted">{entry.at}</span>
                      <span className="flex-1 min-w-32 break-words">
                        {entry.title ?? <span className="text-muted">In the making</span>}
                        <span className="text-muted"> · {entry.channelName}</span>
                      </span>
                      {entry.address ? (
                        <a href={entry.address} target="_blank" rel="noreferrer noopener" className="text-pine underline">
                          Out
                        </a>
                      ) : (
                        <Tag tone={STATES[entry.state].tone}>{STATES[entry.state].words}</Tag>
                      )}
                    </li>
                  ))}
              </ul>
            </li>
          ))}
        </ul>
        {view.more > 0 && <p className="text-muted mt-2">{count(view.more, 'more entry', 'more entries')} in these weeks.</p>}
      </section>
      <Requests title="What you asked for" requests={view.requests.filter(({ askedBy }) => askedBy === null)} />
      <Requests title="What others of you asked for" requests={view.requests.filter(({ askedBy }) => askedBy !== null)} />
    </>
  );
}

function Requests({ title, requests }: { title: string; requests: readonly RoomRequestShape[] }) {
  if (requests.length === 0) return null;
  return (
    <section aria-label={title} className="card p-4 mb-5">
      <h2 className="text-lg mb-2">{title}</h2>
      <ul className="grid gap-1.5">
        {requests.map((request) => (
          <li key={request.number} className="flex flex-wrap items-baseline gap-x-2">
            <span className="flex-1 min-w-40 break-words">
              {request.address ? (
                <a href={request.address} className="text-pine underline">
                  {request.title}
                </a>
              ) : (
                request.title
              )}
              <span className="text-muted text-[13px]">
                {' · '}
                {request.askedBy !== null && `${request.askedBy}, `}
                {instantWords(request.receivedAt)}
              </span>
            </span>
            <Tag tone={REQUESTS[request.state].tone}>{REQUESTS[request.state].words}</Tag>
          </li>
        ))}
      </ul>
    </section>
  );
}
