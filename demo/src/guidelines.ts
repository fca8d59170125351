import { getValue, type ChannelKind } from '@zesting/core';
import { addGuideline, addGuidelinePicture, type App } from '@zesting/server';
import type { ClientKey } from './clients.js';
import { drawPicture, type Motif, type Palette } from './pictures.js';
import type { Setup } from './setup.js';

interface StoryGuideline {
  readonly title: string;
  readonly text: string;
  readonly client?: ClientKey;
  readonly format?: string;
  readonly channelKind?: ChannelKind;
  readonly skill?: string;
  /** what shows it, with its name */
  readonly picture?: readonly [string, readonly [Motif, Palette, seed: number, width: number, height: number]];
}

/** How Quillhaven makes things. */
const GUIDELINES: readonly StoryGuideline[] = [
  {
    title: 'How we write',
    text: 'One thought to a sentence. Say what it is, then what to do. Read it aloud before you hand it in.',
    skill: 'write',
  },
  {
    title: 'Short clips',
    text: 'The first second shows the thing itself, no logo. Upright, 9:16. Words stand in the middle third.\nTwenty seconds at most; sound off must make sense.',
    format: 'Short clip',
  },
  {
    title: 'Pictures for the photo feed',
    text: 'One subject, side light, nothing cut off at the edges. Leave the lower fifth calm.',
    channelKind: 'photo_feed',
    skill: 'design',
    picture: ['Calm below, cut off nowhere', ['loaves', 'rye', 401, 1080, 1350]],
  },
  {
    title: 'Names of plants',
    text: 'Plain name first, the botanical one in brackets, once. Hana checks both: send her a list with the packet.',
    client: 'moss',
  },
];

/** Writes down how things are made. */
export async function addGuidelines(app: App, setup: Setup): Promise<void> {
  for (const { title, text, client, format, channelKind = null, skill = null, picture } of GUIDELINES) {
    const [found] = format === undefined ? [] : await app.read<{ id: string }>('select id from formats where name = $1', [format]);
    if (format !== undefined && !found) throw new Error(`there is no format ${format}`);
    const clientId = client === undefined ? null : setup.clients[client].id;
    const id = getValue(
      await addGuideline(app, setup.viewers.marta, { title, text, clientId, formatId: found?.id ?? null, channelKind, skill }),
    );
    if (!picture) continue;
    const [name, drawn] = picture;
    const stored = getValue(await app.files.store(await drawPicture(...drawn)));
    getValue(await addGuidelinePicture(app, setup.viewers.marta, id, { name: `${name}.png`, stored }));
  }
}
