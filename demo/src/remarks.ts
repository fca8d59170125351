import type { Audience, ContentBody, PlaceBody } from '@zesting/contract';
import { getValue, sentencesIn } from '@zesting/core';
import { addRemark, replyToRemark, type App } from '@zesting/server';
import type { Setup } from './setup.js';
import type { PersonKey } from './story.js';

interface StoryRemark {
  readonly piece: string;
  readonly by: PersonKey;
  readonly audience: Audience;
  readonly text: string;
  /** the first sentence of the copy, a part of the first picture, or the whole */
  readonly at: 'sentence' | 'picture' | 'whole';
  readonly reply?: { readonly by: PersonKey; readonly text: string };
}

/** What the team says about pieces of the story, at its places. */
const REMARKS: readonly StoryRemark[] = [
  {
    piece: 'Meet the cutting bench',
    by: 'dana',
    audience: 'team',
    at: 'sentence',
    text: 'Begin with the knife: it is what everybody asks about.',
    reply: { by: 'noor', text: 'First the knife, then the bench? I’ll try it.' },
  },
  { piece: 'Meet the cutting bench', by: 'dana', audience: 'team', at: 'picture', text: 'A little lighter here, the blade gets lost.' },
];

const AREA = { x: 1500, y: 4200, width: 3400, height: 3000 };

/** Lets the team say something about what is written and drawn. */
export async function addTeamRemarks(app: App, setup: Setup): Promise<void> {
  for (const { piece, by, audience, text, at, reply } of REMARKS) {
    const [found] = await app.read<{ id: string; content: ContentBody }>('select id, content from pieces where title = $1', [piece]);
    if (!found) throw new Error(`a remark is about a piece that is not there: ${piece}`);
    const { copy, media } = found.content.shared;
    const [sentence] = sentencesIn(copy);
    const [medium] = media;
    if (!sentence || !medium) throw new Error(`nothing is written or drawn yet: ${piece}`);
    const places: Record<StoryRemark['at'], PlaceBody | null> = {
      sentence: { kind: 'stretch', channelId: null, ...sentence, words: copy.slice(sentence.from, sentence.to) },
      picture: { kind: 'region', assetId: medium.assetId, ...AREA },
      whole: null,
    };
    const id = getValue(await addRemark(app, setup.viewers[by], found.id, { text, audience, mentionIds: [], place: places[at] }));
    if (reply) getValue(await replyToRemark(app, setup.viewers[reply.by], id, { text: reply.text, audience: 'team', mentionIds: [] }));
  }
}
