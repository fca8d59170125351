import { addDays, getValue } from '@zesting/core';
import { addCampaign, setPieceCampaign, type App } from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import { todayOf } from './plan-story.js';
import type { Setup } from './setup.js';

interface StoryCampaign {
  readonly client: ClientKey;
  readonly name: string;
  readonly aim: string;
  /** days from today: its first and its last */
  readonly days: readonly [number, number];
  readonly channels: readonly number[];
  /** the kind of the client's date that belongs to it */
  readonly marker: string | null;
  readonly titles: readonly string[];
}

const CAMPAIGNS: readonly StoryCampaign[] = [
  {
    client: 'moss',
    name: 'Spring catalogue',
    aim: 'That the catalogue is asked for four hundred times before the first planting weekend.',
    days: [8, 46],
    channels: [0, 1],
    marker: 'launch',
    titles: ['Spring catalogue: the first page', 'Gift plants for small flats', 'Newsletter: what to sow now', 'Hedges that birds like'],
  },
  {
    client: 'kiln',
    name: 'Four o’clock week',
    aim: 'Nothing is thrown away in that week.',
    days: [3, 17],
    channels: [0, 2],
    marker: 'offer',
    titles: ['Staff pick: the plait', 'Pancake day, early'],
  },
  {
    client: 'tide',
    name: 'Winter in the yard',
    aim: 'Twenty new members by the end of the season.',
    days: [-20, 70],
    channels: [0, 1, 2],
    marker: null,
    titles: ['Steaming a plank'],
  },
];

/** Campaigns of the story, with the pieces and dates that belong to them. */
export async function addCampaigns(app: App, setup: Setup, now: string): Promise<void> {
  for (const { client: key, name, aim, days, channels, marker, titles } of CAMPAIGNS) {
    const client = setup.clients[key];
    const viewer = setup.viewers[CLIENTS[key].manager];
    const markers = await app.read<{ id: string }>('select id from markers where client_id = $1 and kind = $2', [client.id, marker ?? '']);
    const campaignId = getValue(
      await addCampaign(app, viewer, client.id, {
        name,
        aim,
        fromOn: addDays(todayOf(now, CLIENTS[key]), days[0]),
        toOn: addDays(todayOf(now, CLIENTS[key]), days[1]),
        channelIds: channels.flatMap((index) => client.channelIds[index] ?? []),
        markerIds: markers.map(({ id }) => id),
      }),
    );
    const pieces = await app.read<{ id: string }>('select id from pieces where client_id = $1 and title = any($2) order by number', [
      client.id,
      titles,
    ]);
    for (const { id } of pieces) getValue(await setPieceCampaign(app, viewer, id, campaignId));
  }
}
