import { isFree, slotKey, type PlanMonthShape, type PlanSlotShape } from '@zesting/contract';
import { monthWeeks, type Day } from '@zesting/core';
import type { Ref } from 'react';
import { Link } from 'react-router';
import { dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { PLACEMENT_WORDS, PURPOSE_WORDS, STAGE_WORDS } from '../../lib/words';
import { Tag, type Tone } from '../../ui/tags';
import { lacksFormat, reasonWords } from './plan-case';
import type { Names } from './use-names';
import type { MonthProposal } from './use-proposal';

interface SlotTableProps {
  readonly plan: PlanMonthShape;
  readonly names: Names;
  readonly proposal: MonthProposal;
  /** the key of the slot that is looked at */
  readonly chosen: string | undefined;
  readonly onChoose: (key: string) => void;
  /** the table: where whoever has filled a slot goes on */
  readonly ref?: Ref<HTMLTableElement>;
}

/** The slots of a month in the order of their dates, week by week: what each wants, and what stands in it. */
export function SlotTable({ plan, ref, ...rest }: SlotTableProps) {
  const weeks = monthWeeks(plan.month).map((days, index) => ({
    number: index + 1,
    first: days[0] ?? '',
    slots: plan.slots.filter(({ on }) => days.includes(on as Day)), // a day of the contract's
  }));
  return (
    <table ref={ref} tabIndex={-1} className="card w-full border-separate border-spacing-0 text-[13px]">
      <caption className="sr-only">Slots of the month</caption>
      <thead>
        <tr className="text-left text-muted">
          <th scope="col" className="font-medium px-3 py-1.5 w-24">
            Day
          </th>
          <th scope="col" className="font-medium px-2 w-36 hidden sm:table-cell">
            Channel
          </th>
          <th scope="col" className="font-medium px-2 w-40 hidden md:table-cell">
            Wants
          </th>
          <th scope="col" className="font-medium px-2">
            In it
          </th>
        </tr>
      </thead>
      {weeks
        .filter(({ slots }) => slots.length > 0)
        .map(({ number, first, slots }) => (
          <tbody key={number}>
            <tr>
              <th scope="rowgroup" colSpan={4} className="text-left font-semibold bg-paper border-y border-line px-3 py-1">
                Week {number} <span className="text-muted font-normal">of {dayWords(first)}</span>
              </th>
            </tr>
            {slots.map((slot) => (
              <SlotRow key={slotKey(slot)} slot={slot} plan={plan} {...rest} />
            ))}
          </tbody>
        ))}
    </table>
  );
}

function SlotRow({ slot, plan, names, proposal, chosen, onChoose }: SlotTableProps & { slot: PlanSlotShape }) {
  const wants = [
    slot.fromStock && 'from the stock',
    names.pillar(slot.pillarId),
    names.format(slot.formatId),
    slot.purpose && PURPOSE_WORDS[slot.purpose],
  ]
    .filter(Boolean)
    .join(' · ');
  const isChosen = chosen === slotKey(slot) && isFree(slot);
  const isOver = slot.isPast && slot.planned === null;
  return (
    <tr className={isOver ? 'text-muted' : ''} aria-current={isChosen ? 'true' : undefined}>
      <td
        className={`px-3 py-1.5 align-top whitespace-nowrap tabular border-b border-line ${isChosen ? 'shadow-[inset_4px_0_0_var(--pine)]' : ''}`}
      >
        {dayWords(slot.on)}
        <span className="text-muted ml-1.5">{slot.at}</span>
      </td>
      <td className="px-2 py-1.5 align-top border-b border-line hidden sm:table-cell">{slot.channelName}</td>
      <td className="px-2 py-1.5 align-top border-b border-line hidden md:table-cell">
        {wants || <span className="text-muted">anything</span>}
      </td>
      <td className="px-2 py-1.5 align-top border-b border-line min-w-0">
        <span className="sm:hidden text-muted block">{slot.channelName}</span>
        <Content slot={slot} plan={plan} names={names} proposal={proposal} isChosen={isChosen} onChoose={onChoose} />
      </td>
    </tr>
  );
}

const STATE_TONES: Readonly<Record<string, Tone>> = { scheduled: 'pine', out: 'pine', pencilled: 'calm', missed: 'rhubarb' };

function Content({
  slot,
  plan,
  names,
  proposal,
  isChosen,
  onChoose,
}: Pick<SlotTableProps, 'plan' | 'names' | 'proposal' | 'onChoose'> & { slot: PlanSlotShape; isChosen: boolean }) {
  const { to } = useClients();
  const { planned } = slot;
  if (planned)
    return (
      <span className="flex flex-wrap items-center gap-x-2 gap-y-0.5">
        <Link to={to(`/pieces/${planned.pieceId}`)} className="font-medium no-underline hover:underline">
          {planned.title}
        </Link>
        <Tag tone={STATE_TONES[planned.state] ?? 'calm'}>{PLACEMENT_WORDS[planned.state] ?? planned.state}</Tag>
        {planned.state === 'pencilled' && <span className="text-muted">{STAGE_WORDS[planned.stage].toLowerCase()}</span>}
        {planned.isUntitled && <Tag tone="rind">to be thought of</Tag>}
        {planned.isOnTheme === false && !planned.isUntitled && <span className="text-rind">off theme</span>}
        {slot.pillarId !== null && planned.pillarId !== slot.pillarId && (
          <span className="text-rind">{names.pillar(planned.pillarId) ?? 'no pillar'}</span>
        )}
      </span>
    );
  if (slot.blackout !== null) return <span className="text-muted">Closed: {slot.blackout}</span>;
  if (slot.isPast) return <span>Nothing went out</span>;
  return (
    <span className="flex items-start gap-3">
      <span className="flex-1 min-w-0">
        <ProposedFor slot={slot} plan={plan} names={names} proposal={proposal} />
      </span>
      <button
        type="button"
        aria-pressed={isChosen}
        className={`text-pine underline min-h-6 whitespace-nowrap ${isChosen ? 'font-semibold' : ''}`}
        aria-label={`See what fits on ${dayWords(slot.on)} at ${slot.at}, ${slot.channelName}`}
        onClick={() => onChoose(slotKey(slot))}
      >
        what fits
      </button>
    </span>
  );
}

/** So many of the reasons that weigh most are told. */
const REASONS = 2;

function ProposedFor({ slot, plan, names, proposal }: Pick<SlotTableProps, 'plan' | 'names' | 'proposal'> & { slot: PlanSlotShape }) {
  const line = isFree(slot) ? proposal.lines?.get(slotKey(slot)) : undefined;
  const candidate = plan.candidates.find(({ id }) => id === line?.candidateId);
  if (!line || !candidate) return <span className="text-muted">open</span>;
  const pillarId = candidate.pillarId ?? slot.pillarId;
  const lacks = lacksFormat(slot, candidate);
  const why = [
    ...(lacks ? ['say first how it is made: under what fits'] : []),
    ...reasonWords(line.reasons, slot, candidate, names).slice(0, REASONS),
    ...(line.owed ? [`the mix owes ${names.pillar(pillarId) ?? 'it'}`] : []),
    ...(line.inARow ? ['the same pillar as beside it'] : []),
    ...(line.likeBeside ? ['about the same as beside it'] : []),
  ];
  return (
    <label className="flex items-start gap-2">
      <input
        type="checkbox"
        className="size-4 mt-0.5 accent-pine shrink-0"
        disabled={lacks}
        checked={proposal.taken.has(slotKey(slot))}
        onChange={(event) => proposal.put(slotKey(slot), event.target.checked)}
      />
      <span>
        <span className="font-medium">{candidate.title}</span>
        {why.length > 0 && <span className="text-muted"> {why.join(' · ')}</span>}
      </span>
    </label>
  );
}
