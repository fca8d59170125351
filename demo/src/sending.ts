import { Temporal } from 'temporal-polyfill';
import { getDay, getValue } from '@zesting/core';
import { claimDue, drainSendings, duplicatePlacement, putFollowUpList, putLink, settleFollowUp, type App } from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import type { Setup } from './setup.js';

/** Once more what went well, sent by itself: the channel refused one, and nobody knows of the other. */
const AGAIN = [
  { title: 'Undyed is a colour', hoursAgo: 3, behaviour: 'refuses' },
  { title: 'A blanket takes eleven days', hoursAgo: 2, behaviour: 'vague' },
] as const;

interface Around {
  readonly words: string;
  readonly kind?: 'enter' | 'follow_up';
  readonly days: number;
  readonly forDays?: number;
  /** what it takes the client's manager; missing: whoever comes to it */
  readonly minutes?: number;
}

/** What somebody does around what goes out, by client and the position of the channel. */
const AROUND: readonly (readonly [ClientKey, number, readonly Around[]])[] = [
  ['kiln', 0, [{ words: 'Share it with the neighbours’ group', days: 5 }]],
  ['kiln', 1, [{ words: 'Put it into the bakehouse’s own page', kind: 'enter', days: 1, minutes: 20 }]],
  [
    'tide',
    0,
    [
      { words: 'Put it into the museum’s planner', kind: 'enter', days: 0, minutes: 15 },
      { words: 'Answer what the friends of the museum write', days: 7, forDays: 2, minutes: 15 },
      { words: 'Ask the harbour office to pass it on', days: 9 },
    ],
  ],
];

/** Tells the simulated channels how to behave. */
async function behave(address: string, behaviour: string): Promise<void> {
  const answer = await fetch(`${address}/behaviour`, { method: 'POST', body: new URLSearchParams({ behaviour }), redirect: 'manual' });
  if (answer.status !== 303) throw new Error(`the simulated channels do not listen: ${answer.status}`);
}

/** The weavers' feed and letter go out by themselves; two that were sent this morning need somebody. Nothing where no channels are simulated. */
export async function addSending(app: App, setup: Setup, now: string): Promise<void> {
  const { simulatedChannels } = app.config;
  if (simulatedChannels === null) return;
  const before = (hours: number) => Temporal.Instant.from(now).subtract({ hours }).round({ smallestUnit: 'minute', roundingMode: 'floor' });
  const { channelIds } = setup.clients.loom;
  const manager = setup.viewers[CLIENTS.loom.manager];
  const { zone } = CLIENTS.loom;
  const link = { address: null, accessEndsOn: null, audience: '', dailyLimit: null, lateMinutes: 120 };
  const endsOn = Temporal.Instant.from(now).toZonedDateTimeISO(zone).toPlainDate().add({ days: 11 }).toString();
  app.clock.set(before(6).toString());
  getValue(await putLink(app, manager, channelIds[0] ?? '', link, 0));
  getValue(
    await putLink(
      app,
      manager,
      channelIds[1] ?? '',
      { ...link, audience: 'Friends of the loom', accessEndsOn: getDay(endsOn), dailyLimit: 1 },
      0,
    ),
  );
  for (const { title, hoursAgo } of AGAIN) {
    const [placement] = await app.read<{ id: string }>(
      'select l.id from placements l join pieces p on p.id = l.piece_id where p.title = $1 and l.channel_id = $2',
      [title, channelIds[0]],
    );
    const at = before(hoursAgo).toZonedDateTimeISO(zone);
    const body = {
      channelId: channelIds[0] ?? '',
      on: at.toPlainDate().toString(),
      at: at.toPlainTime().toString({ smallestUnit: 'minute' }),
    };
    getValue(await duplicatePlacement(app, manager, placement?.id ?? '', body));
  }
  for (const { hoursAgo, behaviour } of AGAIN) {
    await behave(simulatedChannels, behaviour);
    app.clock.set(before(hoursAgo).toString());
    await claimDue(app);
    await drainSendings(app);
    app.clock.set(before(hoursAgo).add({ seconds: 5 }).toString()); // it is asked once
    await drainSendings(app);
  }
  await behave(simulatedChannels, 'fine');
}

/** What is done around what goes out, and was given to what is out: since before anything was. */
export async function addFollowUps(app: App, setup: Setup): Promise<void> {
  for (const [key, position, around] of AROUND) {
    const manager = setup.viewers[CLIENTS[key].manager];
    const items = around.map(({ words, kind = 'follow_up' as const, days, forDays = 1, minutes }) => ({
      words,
      kind,
      days,
      forDays,
      minutes: minutes ?? 0,
      personId: minutes === undefined ? null : manager.personId,
    }));
    getValue(await putFollowUpList(app, manager, setup.clients[key].channelIds[position] ?? '', { items }, 0));
  }
}

/** What came due up to the day before yesterday was done. */
export async function settleFollowUps(app: App, setup: Setup, now: string): Promise<void> {
  app.clock.set(Temporal.Instant.from(now).subtract({ hours: 30 }).toString());
  for (const key of new Set(AROUND.map(([client]) => client))) {
    const open = await app.read<{ id: string }>(
      `select f.id from follow_ups f join clients c on c.id = f.client_id
       where f.client_id = $1 and f.state = 'open' and f.due_on < ($2::timestamptz at time zone c.zone)::date order by f.due_on, f.id`,
      [setup.clients[key].id, app.clock.now()],
    );
    for (const { id } of open) getValue(await settleFollowUp(app, setup.viewers[CLIENTS[key].manager], id, 'done'));
  }
}
