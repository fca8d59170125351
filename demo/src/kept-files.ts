import { addDays, dayIn, getValue, ok, type KeptFileKind } from '@zesting/core';
import { addAsset, keepFile, takeKeptFile, type App } from '@zesting/server';
import { CLIENTS, type ClientKey } from './clients.js';
import { drawPicture, type Motif, type Palette } from './pictures.js';
import type { Setup } from './setup.js';

interface StoryFile {
  readonly client: ClientKey;
  readonly kind: KeptFileKind;
  readonly title: string;
  readonly about: string;
  /** days from today by which it is to be renewed; null: it is good for good */
  readonly goodDays: number | null;
  readonly picture: readonly [Motif, Palette, seed: number, width: number, height: number];
  /** a piece that it was taken into, to be made from */
  readonly piece?: string;
}

/** What the agency keeps for its clients. */
const FILES: readonly StoryFile[] = [
  {
    client: 'kiln',
    kind: 'product',
    title: 'Seeded rye, whole',
    about: 'A dark seeded loaf, whole, on a board',
    goodDays: 9,
    picture: ['loaves', 'rye', 301, 1200, 900],
  },
  {
    client: 'kiln',
    kind: 'product',
    title: 'Saturday bun, cut',
    about: 'A cinnamon bun cut in two',
    goodDays: 140,
    picture: ['loaves', 'oven', 302, 1200, 900],
    piece: 'Pancake day, early',
  },
  {
    client: 'kiln',
    kind: 'product',
    title: 'Old shop front',
    about: 'The shop before it was painted',
    goodDays: -4,
    picture: ['loaves', 'dusk', 303, 1200, 800],
  },
  {
    client: 'kiln',
    kind: 'template',
    title: 'Frame of the four o’clock loaf',
    about: 'A plain ground with room for a price',
    goodDays: null,
    picture: ['loaves', 'loam', 304, 1080, 1080],
    piece: 'Flour from three fields',
  },
  {
    client: 'moss',
    kind: 'product',
    title: 'Tree fern, unrolling',
    about: 'A tree fern that unrolls, from the side',
    goodDays: 60,
    picture: ['leaves', 'fern', 305, 900, 1200],
  },
  {
    client: 'moss',
    kind: 'product',
    title: 'Shade bench',
    about: 'Six pots on the shade bench',
    goodDays: 21,
    picture: ['leaves', 'moss', 306, 1200, 900],
  },
  {
    client: 'tide',
    kind: 'product',
    title: 'The pilot boat, afloat',
    about: 'The pilot boat at her berth',
    goodDays: null,
    picture: ['hulls', 'tide', 307, 1200, 800],
  },
  {
    client: 'loom',
    kind: 'template',
    title: 'Swatch card',
    about: 'A card with room for four threads',
    goodDays: null,
    picture: ['threads', 'wool', 308, 1080, 1350],
  },
];

/** Keeps files for the clients, and takes some of them into pieces. */
export async function addKeptFiles(app: App, setup: Setup, now: string): Promise<void> {
  for (const { client, title, about, kind, goodDays, picture, piece } of FILES) {
    const { id: clientId } = setup.clients[client];
    const manager = setup.viewers[CLIENTS[client].manager];
    const [motif, palette, seed, width, height] = picture;
    const stored = getValue(await app.files.store(await drawPicture(motif, palette, seed, width, height)));
    const name = `${title.toLowerCase().replaceAll(/[^a-z]+/g, '-')}.png`;
    const { assetId } = getValue(
      await app.write(async (tx, at) => ok(await addAsset(tx, stored, { clientId, pieceId: null, name, now: at }))),
    );
    const renewBy = goodDays === null ? null : addDays(dayIn(now, CLIENTS[client].zone), goodDays);
    const keptFileId = getValue(await keepFile(app, manager, clientId, { assetId, kind, title, about, renewBy }));
    if (piece === undefined) continue;
    const [found] = await app.read<{ id: string }>('select id from pieces where title = $1', [piece]);
    if (!found) throw new Error(`a file is for a piece that is not there: ${piece}`);
    getValue(await takeKeptFile(app, manager, found.id, keptFileId, { into: 'material' }));
  }
}
