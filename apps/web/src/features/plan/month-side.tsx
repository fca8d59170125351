import type { ClientShape, PlanMonthShape, PlanSlotShape } from '@zesting/contract';
import type { LeadStanding, SlottingCase } from '@zesting/core';
import { Link } from 'react-router';
import { count, dayWords, monthWords } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { markerKindWords } from '../../lib/words';
import { MarkerDialog } from '../../parts/marker-dialog';
import { Tag, type Tone } from '../../ui/tags';
import { MonthCost } from './month-cost';
import { SubjectsOfMonth } from './subjects-of-month';
import { MonthNumbers } from './month-numbers';
import { SlotFits } from './slot-fits';
import { ThemeLine } from './theme-line';
import type { Names } from './use-names';

interface MonthSideProps {
  readonly client: ClientShape;
  readonly month: string;
  readonly plan: PlanMonthShape;
  readonly names: Names;
  readonly chosen: PlanSlotShape | undefined;
  readonly whole: SlottingCase;
  readonly isChosenHere: boolean;
  readonly onFilled: () => void;
}

/** Beside the slots: what fits the chosen one, the theme, what the mix still owes, and what else the month holds. */
export function MonthSide({ client, month, plan, names, chosen, whole, isChosenHere, onFilled }: MonthSideProps) {
  return (
    <aside aria-label={`Beside the slots of ${monthWords(month)}`} className="grid gap-4 lg:sticky lg:top-4">
      {chosen && (
        <SlotFits
          clientId={client.id}
          slot={chosen}
          plan={plan}
          names={names}
          whole={whole}
          isChosenHere={isChosenHere}
          onFilled={onFilled}
        />
      )}
      <ThemeLine clientId={client.id} month={month} plan={plan} />
      <Mix plan={plan} names={names} />
      <MonthNumbers numbers={plan.numbers} />
      <ToThinkOf plan={plan} />
      <SubjectsOfMonth client={client} month={month} />
      <MonthCost clientId={client.id} month={month} />
      <Preparing plan={plan} />
      <Markers plan={plan} />
      <OpenedMarker plan={plan} />
    </aside>
  );
}

function Mix({ plan, names }: { plan: PlanMonthShape; names: Names }) {
  const { client, to } = useClients();
  if (plan.mix.length === 0)
    return (
      <section aria-label="Mix" className="card p-3">
        <h2 className="text-base">Mix</h2>
        <p className="text-muted text-[13px]">
          No pillars yet, so nothing is owed.{' '}
          <Link to={to(`/clients/${client?.id}?part=pillars`)} className="text-pine underline">
            Name them
          </Link>
        </p>
      </section>
    );
  return (
    <section aria-label="Mix" className="card p-3">
      <h2 className="text-base mb-1">What the mix owes</h2>
      <ul className="grid gap-1.5 text-[13px]">
        {plan.mix.map((row) => (
          <li key={row.pillarId ?? 'none'}>
            <p className="flex items-baseline gap-2">
              <span className="flex-1 truncate" title={row.name}>
                {row.name}
              </span>
              {row.owed > 0 ? (
                <span className="text-rind font-medium">{row.owed} more</span>
              ) : row.owed < 0 ? (
                <span className="text-muted">{-row.owed} over</span>
              ) : (
                row.pillarId !== null && <span className="text-pine">as it should be</span>
              )}
              <span className="tabular text-muted whitespace-nowrap">
                {row.count}
                {row.pillarId !== null && ` of ${row.wanted}`}
              </span>
            </p>
            {row.wanted > 0 && (
              <span className="block h-1.5 rounded-sm bg-sunk overflow-hidden" aria-hidden>
                <span className="block h-full bg-pine" style={{ width: `${Math.min(100, (100 * row.count) / row.wanted)}%` }} />
              </span>
            )}
          </li>
        ))}
      </ul>
      <p className="text-muted text-[12px] mt-2">
        {[
          ...(plan.longestRun > 2 ? [`${names.pillar(plan.longestRunPillarId) ?? 'one pillar'} ${plan.longestRun} times in a row`] : []),
          ...(plan.askingOf === 0 ? [] : [`${plan.asking} of ${plan.askingOf} ask something of people`]),
          ...(plan.largestGapDays === null ? [] : [`the longest pause is ${count(plan.largestGapDays, 'day')}`]),
        ].join('; ')}
      </p>
    </section>
  );
}

/** The marker that the address opens, where the viewer may change it. */
function OpenedMarker({ plan }: { plan: PlanMonthShape }) {
  const { search, put } = useSearch();
  const { role } = useSession();
  const opened = [...plan.preparing, ...plan.markers].find(({ id }) => id !== null && id === search.get('marker'));
  if (!opened || opened.version === null || (opened.clientId === null && role !== 'lead')) return null;
  return <MarkerDialog key={opened.id} marker={opened} onClose={() => put({ marker: null }, { replace: true })} />;
}

/** Pieces that are planned and still to be thought of, the next first: each day that passes is one less to make it in. */
function ToThinkOf({ plan }: { plan: PlanMonthShape }) {
  const { to } = useClients();
  const all = [...plan.slots.flatMap(({ planned }) => planned ?? []), ...plan.beside].filter(
    ({ isUntitled, on }) => isUntitled && on >= plan.todayOn,
  );
  const pieces = [...new Map(all.map((planned) => [planned.pieceId, planned])).values()].sort((a, b) => (a.on < b.on ? -1 : 1));
  if (pieces.length === 0) return null;
  return (
    <section aria-label="Still to be thought of" className="card p-3 text-[13px]">
      <h2 className="text-base mb-1">Still to be thought of</h2>
      <ul className="grid gap-0.5">
        {pieces.map(({ pieceId, title, on, channelName }) => (
          <li key={pieceId} className="flex items-center gap-2 min-h-7">
            <Link to={to(`/pieces/${pieceId}?open=edit`)} className="flex-1 truncate text-pine underline" title={`Give “${title}” a title`}>
              {channelName}
            </Link>
            <span className="tabular">{dayWords(on)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Dates to come whose preparation begins in the month, or has begun. */
function Preparing({ plan }: { plan: PlanMonthShape }) {
  const { put } = useSearch();
  if (plan.preparing.length === 0) return null;
  return (
    <section aria-label="To prepare" className="card p-3">
      <h2 className="text-base mb-1">To prepare</h2>
      <ul className="grid gap-1 text-[13px]">
        {plan.preparing.map((marker) => (
          <li key={marker.id} className="flex items-start gap-2">
            <span className="flex-1 min-w-0">
              <button type="button" className="font-medium text-left hover:underline min-h-6" onClick={() => put({ marker: marker.id })}>
                {marker.name}
              </button>
              <span className="block text-muted">
                {markerKindWords(marker).toLowerCase()} on {dayWords(marker.startOn)}, from {dayWords(marker.prepareOn)}
                {marker.runUps > 0 && `, ${marker.made} of ${marker.runUps} made`}
              </span>
            </span>
            <Tag tone={LEAD_TONES[marker.standing]}>{LEAD_WORDS[marker.standing]}</Tag>
          </li>
        ))}
      </ul>
    </section>
  );
}

const LEAD_WORDS: Record<LeadStanding, string> = { ahead: 'ahead', now: 'prepare now', tight: 'tight', too_late: 'too late', past: 'past' };
const LEAD_TONES: Record<LeadStanding, Tone> = { ahead: 'calm', now: 'pine', tight: 'rind', too_late: 'rhubarb', past: 'calm' };

/** So many markers are told; the calendar has the others. */
const SHOWN = 8;

function Markers({ plan }: { plan: PlanMonthShape }) {
  const { put } = useSearch();
  const seen = new Set<string>();
  const once = plan.markers.filter(({ id, name, startOn }) => {
    const key = `${id} ${name} ${startOn}`;
    return !seen.has(key) && seen.add(key);
  });
  once.sort((a, b) => (a.startOn < b.startOn ? -1 : 1));
  if (once.length === 0) return null;
  return (
    <section aria-label="Markers" className="card p-3">
      <h2 className="text-base mb-1">In this month</h2>
      <ul className="grid gap-0.5 text-[13px]">
        {once.slice(0, SHOWN).map((marker) => (
          <li key={`${marker.id ?? ''}${marker.name}${marker.startOn}`} className="flex gap-2">
            <span className="tabular whitespace-nowrap w-20 shrink-0">{dayWords(marker.startOn)}</span>
            <span className="min-w-0">
              {marker.version === null ? (
                marker.name
              ) : (
                <button type="button" className="text-left hover:underline min-h-6" onClick={() => put({ marker: marker.id })}>
                  {marker.name}
                </button>
              )}
              <span className="text-muted">
                {' '}
                {markerKindWords(marker).toLowerCase()}
                {marker.endOn !== marker.startOn && ` until ${dayWords(marker.endOn)}`}
              </span>
            </span>
          </li>
        ))}
      </ul>
      {once.length > SHOWN && <p className="text-muted text-[13px]">{once.length - SHOWN} more stand on the calendar.</p>}
    </section>
  );
}
