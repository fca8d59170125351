import { useQuery } from '@tanstack/react-query';
import type { CampaignMoveItemShape, CampaignShape } from '@zesting/contract';
import type { ItemOutcome } from '@zesting/core';
import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { campaignMoveQuery } from '../../api/campaigns';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { Choice } from '../../ui/choice';
import { FormDialog } from '../../ui/form-dialog';
import { Tag } from '../../ui/tags';

interface MoveDialogProps {
  readonly campaign: CampaignShape;
  readonly fromOn: string;
  readonly toOn: string;
  readonly onClose: () => void;
}

const OUTCOMES: Record<ItemOutcome, string> = {
  fine: '',
  past: 'would lie in the past',
  out_of_reach: 'cannot be ready by then',
  outside: 'lies outside the campaign',
};

/** What another period would make of a campaign, before anything is changed. */
export function MoveDialog({ campaign, fromOn, toOn, onClose }: MoveDialogProps) {
  const move = useQuery(campaignMoveQuery(campaign.id, fromOn, toOn));
  const [isAlong, setAlong] = useState(true);
  const put = useWrite(
    ({ period, along, version }: { period: { fromOn: string; toOn: string }; along: boolean; version: number }) =>
      call(`/campaigns/${campaign.id}/period`, { method: 'PUT', body: { ...period, isAlong: along }, version }),
    { quiet: true },
  );
  const moved = move.data;
  const goesAlong = moved !== undefined && moved.byDays !== 0 && isAlong;
  const isPast = goesAlong && moved.items.some(({ outcome }) => outcome === 'past');
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    const { fromOn: wasFrom, toOn: wasTo, version } = campaign;
    put.mutate(
      { period: { fromOn, toOn }, along: goesAlong, version },
      {
        onSuccess: () => {
          toast(`“${campaign.name}” is now ${dayWords(fromOn)} to ${dayWords(toOn)}.`, {
            action: {
              label: 'Take it back',
              onClick: () => put.mutate({ period: { fromOn: wasFrom, toOn: wasTo }, along: goesAlong, version: version + 1 }),
            },
          });
          onClose();
        },
      },
    );
  };
  return (
    <FormDialog
      form={{
        onSubmit,
        wrong: move.isError
          ? wordsOf(move.error)
          : put.isError
            ? wordsOf(put.error)
            : isPast
              ? 'What would lie in the past cannot move there: move it less, or leave everything where it is.'
              : undefined,
        busy: put.isPending || !moved || isPast,
      }}
      onClose={onClose}
      title={`Move “${campaign.name}”`}
      description={`From ${dayWords(campaign.fromOn)} – ${dayWords(campaign.toOn)} to ${dayWords(fromOn)} – ${dayWords(toOn)}.`}
      action="Move it"
    >
      {moved && moved.byDays !== 0 && (
        <div className="mb-3">
          <Choice
            label="What moves"
            value={isAlong ? 'along' : 'stay'}
            options={[
              ['along', `Everything by ${count(Math.abs(moved.byDays), 'day')}`],
              ['stay', 'The period alone'],
            ]}
            onChange={(next) => setAlong(next === 'along')}
          />
        </div>
      )}
      {moved && <Items items={moved.items} goesAlong={goesAlong} fromOn={fromOn} toOn={toOn} />}
      {moved && moved.undated > 0 && (
        <p className="text-muted text-[13px] mb-2">
          {count(moved.undated, 'piece')} without a day {moved.undated === 1 ? 'stays' : 'stay'} as{' '}
          {moved.undated === 1 ? 'it is' : 'they are'}.
        </p>
      )}
    </FormDialog>
  );
}

interface ItemsProps {
  readonly items: readonly CampaignMoveItemShape[];
  readonly goesAlong: boolean;
  readonly fromOn: string;
  readonly toOn: string;
}

function Items({ items, goesAlong, fromOn, toOn }: ItemsProps) {
  const { clients } = useClients();
  const channels = new Map(clients.flatMap((client) => client.channels.map(({ id, name }) => [id, name] as const)));
  if (items.length === 0) return <p className="text-muted mb-3">Nothing of it has a day yet.</p>;
  // without moving along, all that changes is what lies outside
  const outcomeOf = ({ from, outcome }: CampaignMoveItemShape): ItemOutcome =>
    goesAlong ? outcome : from < fromOn || from > toOn ? 'outside' : 'fine';
  return (
    <ul className="max-h-72 overflow-y-auto mb-3 text-[13px]" tabIndex={0} aria-label="What it makes of what is in it">
      {items.map((item) => {
        const outcome = outcomeOf(item);
        return (
          <li key={`${item.kind} ${item.id}`} className="border-t border-line first:border-t-0 py-1 flex flex-wrap items-center gap-x-3">
            <span className="flex-1 min-w-40 truncate" title={item.name}>
              {item.kind === 'marker' && '◆ '}
              {item.name}
              {item.channelId && <span className="text-muted"> · {channels.get(item.channelId)}</span>}
            </span>
            <span className="tabular whitespace-nowrap">
              {dayWords(item.from)}
              {goesAlong && item.to !== item.from && ` → ${dayWords(item.to)}`}
              {goesAlong && item.to === item.from && <span className="text-muted"> stays</span>}
            </span>
            {outcome !== 'fine' && <Tag tone={outcome === 'outside' ? 'rind' : 'rhubarb'}>{OUTCOMES[outcome]}</Tag>}
          </li>
        );
      })}
    </ul>
  );
}
