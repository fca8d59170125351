import { getValue, isReady } from '@zesting/core';
import { addTagSet, checkPlacement, goingOutOf, type App } from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import type { Setup } from './setup.js';

/** What went out on its second channel, and nobody has said where since. */
export const UNADDRESSED = 'Seeded rye is back';

/** Whose managers have looked at what goes out next. */
const LOOKED: readonly ClientKey[] = ['kiln', 'loom'];

/** Tags that go out again and again: the first two of them on everything. */
const TAG_SETS: readonly (readonly [
  client: ClientKey,
  name: string,
  tags: readonly string[],
  pillar: number | null,
  weekday: number | null,
])[] = [
  ['kiln', 'Everything', ['kilnlane', 'breadfirst'], null, null],
  ['kiln', 'Weekend baking', ['saturdaybuns', 'slowmorning'], null, 6],
  ['moss', 'Everything', ['undergreen', 'slowgarden'], null, null],
  ['moss', 'Shade', ['fern', 'moss', 'shadegarden'], 0, null],
  ['tide', 'Everything', ['tidelight', 'woodenboats'], null, null],
];

/** Tag sets of the clients. */
export async function addTagSets(app: App, setup: Setup): Promise<void> {
  for (const [key, name, tags, pillar, weekday] of TAG_SETS) {
    const { id, pillarIds } = setup.clients[key];
    const pillarId = pillar === null ? null : (pillarIds[pillar] ?? null);
    getValue(await addTagSet(app, setup.viewers[CLIENTS[key].manager], id, { name, tags: [...tags], pillarId, weekday }));
  }
}

/** The check of the coming week: some managers have done theirs. */
export async function addChecks(app: App, setup: Setup): Promise<void> {
  for (const key of LOOKED) {
    const manager = setup.viewers[CLIENTS[key].manager];
    const { rows } = await goingOutOf(app, [setup.clients[key].id], manager.zone);
    for (const { id, state, findings, seen } of rows)
      if (state === 'scheduled' && isReady(findings)) getValue(await checkPlacement(app, manager, id, { isChecked: true, seen }));
  }
}
