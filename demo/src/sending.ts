import { Temporal } from 'temporal-polyfill';
import { getDay, getValue } from '@zesting/core';
import { claimDue, drainSendings, duplicatePlacement, putLink, type App } from '@zesting/server';
import { CLIENTS } from './clients.js';
import type { Setup } from './setup.js';

/** Once more what went well, sent by itself: the channel refused one, and nobody knows of the other. */
const AGAIN = [
  { title: 'Undyed is a colour', hoursAgo: 3, behaviour: 'refuses' },
  { title: 'A blanket takes eleven days', hoursAgo: 2, behaviour: 'vague' },
] as const;

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
