import { useQuery } from '@tanstack/react-query';
import { CampaignBody, type CampaignMadeShape, type CampaignShape, type ClientShape } from '@zesting/contract';
import { addDays, type Day } from '@zesting/core';
import { useState } from 'react';
import { planYearQuery } from '../../api/plan';
import { call } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { FormDialog } from '../../ui/form-dialog';
import { ChoiceField } from '../../ui/option-field';
import { SpanFields } from '../../ui/span-fields';
import { TextField } from '../../ui/text-field';
import { TickList } from '../../ui/tick-list';

interface CampaignDialogProps {
  /** whose a new campaign is at first */
  readonly client: ClientShape | undefined;
  /** what is changed; without it one is begun */
  readonly campaign: CampaignShape | undefined;
  readonly todayOn: string;
  readonly onClose: () => void;
}

/** A month, at first. */
const LENGTH_DAYS = 30;

/** A campaign: its aim, its period, where it is seen, and the dates that belong to it. */
export function CampaignDialog({ client: first, campaign, todayOn, onClose }: CampaignDialogProps) {
  const { clients, clientOf } = useClients();
  const [clientId, setClientId] = useState(campaign?.clientId ?? first?.id ?? '');
  const client = clientOf(clientId);
  const save = useWrite(
    (body: CampaignBody) =>
      campaign
        ? call(`/campaigns/${campaign.id}`, { method: 'PUT', body, version: campaign.version })
        : call<CampaignMadeShape>(`/clients/${clientId}/campaigns`, { method: 'POST', body }),
    { quiet: true },
  );
  const form = useBodyForm<CampaignBody>(
    CampaignBody,
    campaign
      ? { ...told(campaign), markerIds: campaign.markers.map(({ id }) => id) }
      : {
          name: '',
          aim: '',
          fromOn: todayOn,
          toOn: addDays(todayOn as Day, LENGTH_DAYS), // a day of the contract's
          channelIds: [],
          markerIds: [],
        },
    {
      send: async (body) => {
        await save.mutateAsync({ ...told(body), markerIds: body.markerIds });
        onClose();
      },
      words: { name: { isNotBlank: 'Give it a name.' } },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={campaign ? 'Change the campaign' : 'Begin a campaign'}
      {...(campaign ? { description: 'Pieces and dates stay where they are; drag the bar to take them along.' } : {})}
      action={campaign ? 'Change it' : 'Begin it'}
    >
      {!campaign && (
        <ChoiceField
          label="Client"
          value={clientId}
          options={clients}
          onChange={(id) => {
            setClientId(id);
            change({ channelIds: [], markerIds: [] });
          }}
        />
      )}
      <TextField label="Name" required error={errorOf('name')} maxLength={120} value={body.name} onChange={(name) => change({ name })} />
      <TextField
        label="Aim"
        help="What it is for, in a sentence."
        error={errorOf('aim')}
        maxLength={500}
        rows={2}
        value={body.aim}
        onChange={(aim) => change({ aim })}
      />
      <div className="grid sm:grid-cols-2 gap-x-3">
        <SpanFields
          span={{ startOn: body.fromOn, endOn: body.toOn }}
          onChange={({ startOn, endOn }) => change({ fromOn: startOn, toOn: endOn })}
          error={errorOf('toOn') ?? errorOf('fromOn')}
          todayOn={todayOn}
        />
      </div>
      {client && (
        <TickList
          label="Where it is mainly seen"
          error={errorOf('channelIds')}
          options={client.channels}
          chosen={body.channelIds}
          onChange={(channelIds) => change({ channelIds })}
        />
      )}
      {client && (
        <Dates
          key={client.id}
          client={client}
          fromOn={body.fromOn}
          toOn={body.toOn}
          known={campaign?.markers ?? []}
          chosen={body.markerIds}
          onChange={(markerIds) => change({ markerIds })}
        />
      )}
    </FormDialog>
  );
}

const told = ({ name, aim, fromOn, toOn, channelIds }: Omit<CampaignBody, 'markerIds'>) => ({ name, aim, fromOn, toOn, channelIds });

interface DatesProps {
  readonly client: ClientShape;
  readonly fromOn: string;
  readonly toOn: string;
  readonly known: readonly { readonly id: string; readonly name: string; readonly startOn: string }[];
  readonly chosen: readonly string[];
  readonly onChange: (chosen: string[]) => void;
}

/** The client's dates in the period of a campaign, and those that belong to it already. */
function Dates({ client, fromOn, toOn, known, chosen, onChange }: DatesProps) {
  const isWhole = fromOn !== '' && fromOn <= toOn;
  const { data } = useQuery({ ...planYearQuery(client.id, fromOn.slice(0, 7)), enabled: isWhole });
  const there = (data?.markers ?? []).flatMap(({ id, kind, name, startOn, endOn, clientId }) =>
    id !== null && kind !== 'closure' && clientId === client.id && endOn >= fromOn && startOn <= toOn ? [{ id, name, startOn }] : [],
  );
  const all = [...new Map([...known, ...there].map((marker) => [marker.id, marker])).values()].sort((a, b) =>
    a.startOn < b.startOn ? -1 : 1,
  );
  return (
    <TickList
      label="Dates that belong to it"
      isColumn
      options={all.map(({ id, name, startOn }) => ({ id, name: `${name}, ${dayWords(startOn)}` }))}
      chosen={chosen}
      onChange={onChange}
    />
  );
}
