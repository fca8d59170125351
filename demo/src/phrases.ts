import { getValue } from '@zesting/core';
import { addPhrase, usePhrase, type App } from '@zesting/server';
import type { PhraseBody } from '@zesting/contract';
import { CLIENTS, type ClientKey } from './clients.js';
import type { Setup } from './setup.js';

/** What is written again and again: client, kind, position of its pillar (null: any), words, titles of pieces that it was put into. */
const PHRASES: readonly (readonly [ClientKey, PhraseBody['kind'], number | null, string, readonly string[]])[] = [
  ['moss', 'opening', null, 'Down at the nursery this week:', ['First ferns of the season', 'Rain barrels, ready']],
  ['moss', 'opening', 2, 'Older than most of us, and still growing.', ['Our oldest bonsai turns sixty']],
  ['moss', 'closing', null, 'Ask us at the bench by the door.', []],
  ['moss', 'call_to_action', 1, 'Bring the leaf in a bag, and we look at it together.', ['Newsletter: pests without poison']],
  ['moss', 'template', null, 'What grows now:\nWhat it needs:\nWhat to leave alone:', []],
  ['kiln', 'opening', null, 'At two in the morning, when the street is ours:', []],
  ['kiln', 'call_to_action', null, 'Order by Thursday, fetch on Saturday.', ['Seeded rye is back']],
  ['tide', 'closing', null, 'The yard is open on Saturdays, whatever the tide.', ['The pilot boat comes home']],
];

/** What clients have kept to be written again, and where it was. */
export async function addPhrases(app: App, setup: Setup): Promise<void> {
  for (const [key, kind, pillar, text, titles] of PHRASES) {
    const { id, pillarIds } = setup.clients[key];
    const manager = setup.viewers[CLIENTS[key].manager];
    const pillarId = pillar === null ? null : (pillarIds[pillar] ?? null);
    const phraseId = getValue(await addPhrase(app, manager, id, { kind, text, pillarId }));
    for (const title of titles) {
      const [piece] = await app.read<{ id: string }>('select id from pieces where title = $1 and client_id = $2', [title, id]);
      if (!piece) throw new Error(`no piece: ${title}`);
      getValue(await usePhrase(app, piece.id, phraseId));
    }
  }
}
