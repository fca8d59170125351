import { getValue, isReady } from '@zesting/core';
import { checkPlacement, goingOutOf, type App } from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import type { Setup } from './setup.js';

/** What went out on its second channel, and nobody has said where since. */
export const UNADDRESSED = 'Seeded rye is back';

/** Whose managers have looked at what goes out next. */
const LOOKED: readonly ClientKey[] = ['kiln', 'loom'];

/** The check of the coming week: some managers have done theirs. */
export async function addChecks(app: App, setup: Setup): Promise<void> {
  for (const key of LOOKED) {
    const manager = setup.viewers[CLIENTS[key].manager];
    const { rows } = await goingOutOf(app, [setup.clients[key].id], manager.zone);
    for (const { id, state, findings, seen } of rows)
      if (state === 'scheduled' && isReady(findings)) getValue(await checkPlacement(app, manager, id, { isChecked: true, seen }));
  }
}
