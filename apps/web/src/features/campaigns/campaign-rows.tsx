import type { CampaignShape } from '@zesting/contract';
import { addDays, type Day } from '@zesting/core';
import { barOf, dragged, leftOf, type Axis } from '../../lib/axis';
import { count, dayWords, monthWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { useHold } from '../../lib/use-hold';
import { STAGE_WORDS } from '../../lib/words';
import { ClientCode, clientColour, Tag } from '../../ui/tags';
import { ticksOf, type Span } from './axis';

interface RowsProps {
  readonly campaigns: readonly CampaignShape[];
  readonly axis: Axis;
  readonly span: Span;
  readonly todayOn: Day;
  readonly onOpen: (campaignId: string) => void;
  /** a bar was dragged to another period: nothing is changed yet */
  readonly onDropped: (campaignId: string, period: Axis) => void;
}

/** A row for each campaign: how far it is, and its bar. Bars and their ends are dragged, or moved by the arrow keys and set by Enter. */
export function CampaignRows({ campaigns, axis, span, todayOn, onOpen, onDropped }: RowsProps) {
  const ticks = ticksOf(axis, span);
  const today = leftOf(axis, todayOn);
  return (
    <div className="card overflow-x-auto">
      <div className="min-w-[56rem]">
        <div className="grid grid-cols-[19rem_minmax(0,1fr)] text-[12px] text-muted border-b border-line" aria-hidden>
          <span className="px-3 py-1">Campaign</span>
          <div className="relative h-6">
            {ticks.map(({ on, isMonth }) => (
              <span key={on} className="absolute top-1 tabular whitespace-nowrap pl-1" style={{ left: `${leftOf(axis, on)}%` }}>
                {isMonth ? monthWords(on.slice(0, 7)).slice(0, 3) : dayWords(on, on.slice(0, 4)).replace(/^\w+ /, '')}
              </span>
            ))}
          </div>
        </div>
        <ul aria-label="Campaigns">
          {campaigns.map((campaign) => (
            <li key={campaign.id} className="grid grid-cols-[19rem_minmax(0,1fr)] border-t border-line first:border-t-0">
              <Told campaign={campaign} onOpen={() => onOpen(campaign.id)} />
              <div className="relative min-h-14 overflow-hidden" data-axis>
                {ticks.map(({ on }) => (
                  <span key={on} className="absolute inset-y-0 w-px bg-line" style={{ left: `${leftOf(axis, on)}%` }} aria-hidden />
                ))}
                {today >= 0 && today <= 100 && (
                  <span className="absolute inset-y-0 w-0.5 bg-rhubarb opacity-60" style={{ left: `${today}%` }} aria-hidden />
                )}
                <Bar campaign={campaign} axis={axis} onDropped={(period) => onDropped(campaign.id, period)} />
              </div>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}

/** What is said of a campaign beside its bar. */
function Told({ campaign, onOpen }: { campaign: CampaignShape; onOpen: () => void }) {
  const { clientOf } = useClients();
  const client = clientOf(campaign.clientId);
  const pieces = campaign.stages.reduce((sum, one) => sum + one.count, 0);
  return (
    <div className="px-3 py-1.5 min-w-0">
      <p className="flex items-center gap-2">
        <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
        <button type="button" className="font-medium truncate hover:underline text-left min-h-6" title={campaign.name} onClick={onOpen}>
          {campaign.name}
        </button>
        {campaign.inDanger > 0 && <Tag tone="rhubarb">{campaign.inDanger} in danger</Tag>}
      </p>
      <p className="text-muted text-[12px] truncate" title={campaign.aim}>
        {pieces === 0
          ? 'no pieces yet'
          : campaign.stages.map(({ stage, count: of }) => `${of} ${STAGE_WORDS[stage].toLowerCase()}`).join(', ')}
      </p>
    </div>
  );
}

/** A bar that is narrower has no ends to take hold of: they are changed in its dialog, or closer up. */
const ENDS_PERCENT = 9;

interface BarProps {
  readonly campaign: CampaignShape;
  readonly axis: Axis;
  readonly onDropped: (period: Axis) => void;
}

function Bar({ campaign, axis, onDropped }: BarProps) {
  const { clientOf } = useClients();
  const client = clientOf(campaign.clientId);
  const own: Axis = { fromOn: campaign.fromOn as Day, toOn: campaign.toOn as Day }; // days of the contract's
  const { moving, held } = useHold({ axis, own, onDropped: ({ hold, days }) => onDropped(dragged(own, hold, days)) });
  const period = moving ? dragged(own, moving.hold, moving.days) : own;
  const bar = barOf(axis, period);
  if (!bar) return null;
  // an end that is held stays, however short the bar becomes
  const hasEnds = (moving !== undefined && moving.hold !== 'whole') || bar.width > ENDS_PERCENT;
  const words = `${dayWords(period.fromOn)} to ${dayWords(period.toOn)}`;
  const how = 'arrow keys move it, with Shift by a week; Enter sets it';
  return (
    <>
      <div
        className={`absolute top-2 h-7 rounded-md ${moving ? 'ring-2 ring-ink' : ''}`}
        style={{ left: `${bar.left}%`, width: `${bar.width}%`, background: clientColour(client?.colour ?? 0) }}
      >
        <button
          type="button"
          className="absolute inset-0 cursor-grab touch-none rounded-md"
          aria-label={`${campaign.name}, ${words}: ${how}`}
          title={words}
          {...held('whole')}
        />
        {hasEnds && period.fromOn >= axis.fromOn && (
          <button
            type="button"
            className="absolute left-0 inset-y-0 w-7 cursor-ew-resize touch-none flex items-center"
            aria-label={`Start of ${campaign.name}, ${dayWords(period.fromOn)}: ${how}`}
            {...held('start')}
          >
            <span className="h-4 w-1 ml-1 rounded-full bg-paper" aria-hidden />
          </button>
        )}
        {hasEnds && period.toOn <= axis.toOn && (
          <button
            type="button"
            className="absolute right-0 inset-y-0 w-7 cursor-ew-resize touch-none flex items-center justify-end"
            aria-label={`End of ${campaign.name}, ${dayWords(period.toOn)}: ${how}`}
            {...held('end')}
          >
            <span className="h-4 w-1 mr-1 rounded-full bg-paper" aria-hidden />
          </button>
        )}
      </div>
      {moving ? (
        <p
          className="absolute top-9 text-[12px] font-medium tabular whitespace-nowrap"
          style={{ left: `${Math.min(bar.left, 70)}%` }}
          aria-live="polite"
        >
          {words}
        </p>
      ) : (
        <Below campaign={campaign} axis={axis} />
      )}
    </>
  );
}

/** Below the bar: the days on which something goes out, and the dates of the campaign. */
function Below({ campaign, axis }: { campaign: CampaignShape; axis: Axis }) {
  const seen = (on: string) => leftOf(axis, on as Day) >= 0 && leftOf(axis, on as Day) < 100; // a day of the contract's
  const middle = (on: string) => `calc(${(leftOf(axis, on as Day) + leftOf(axis, addDays(on as Day, 1))) / 2}% - 3px)`;
  return (
    <>
      <p className="sr-only">
        {count(campaign.days.length, 'day')} on which something goes out.{' '}
        {campaign.markers.map(({ name, startOn }) => `${name} on ${dayWords(startOn)}`).join(', ')}
      </p>
      {campaign.days.filter(seen).map((on) => (
        <span
          key={on}
          className="absolute top-10 size-1.5 rounded-full bg-ink"
          style={{ left: middle(on) }}
          title={`goes out ${dayWords(on)}`}
          aria-hidden
        />
      ))}
      {campaign.markers
        .filter(({ startOn }) => seen(startOn))
        .map(({ id, name, startOn }) => (
          <span
            key={id}
            className="absolute top-9 text-[12px] text-rind font-medium whitespace-nowrap"
            style={{ left: middle(startOn) }}
            title={`${name}, ${dayWords(startOn)}`}
            aria-hidden
          >
            ◆ {name}
          </span>
        ))}
    </>
  );
}
