import type { ChannelPost } from './channel-store.js';

/** How a kind of channel takes what comes to it. Its rules are its own, and known to nobody but itself: whoever sends learns of them by being refused. */
export interface SimulatedKind {
  readonly name: string;
  /** the most user-perceived characters of the text, with its tags where they count */
  readonly textLimit?: number;
  readonly tagsCount?: true;
  /** how many pictures, clips and sounds it takes */
  readonly media?: { readonly least?: number; readonly most?: number; readonly only?: RegExp };
  /** a list of people that it must be told */
  readonly needsAudience?: true;
  /** works on what it took before it is seen: says 202, and publishes a little later */
  readonly worksOnIt?: true;
  /** nothing of it can be opened at an address, and nobody can comment it */
  readonly isLetter?: true;
}

const CLIP = /^video\//;
const HEARD = /^(audio|video)\//;

/** The kinds of channel by their names, with limits that are common practice and no channel's in particular. */
export const KINDS: Readonly<Record<string, SimulatedKind>> = {
  photo_feed: { name: 'Simulated photo feed', textLimit: 2200, media: { least: 1, most: 10, only: /^(image|video)\// } },
  short_clip_feed: { name: 'Simulated short-clip feed', textLimit: 300, tagsCount: true, media: { least: 1, most: 1, only: CLIP } },
  microblog: { name: 'Simulated microblog', textLimit: 280, tagsCount: true, media: { most: 4 } },
  professional_network: { name: 'Simulated professional network', textLimit: 3000, tagsCount: true, media: { most: 9 } },
  video_site: { name: 'Simulated video site', textLimit: 5000, media: { least: 1, most: 1, only: CLIP }, worksOnIt: true },
  blog: { name: 'Simulated blog' },
  newsletter: { name: 'Simulated newsletter service', needsAudience: true, isLetter: true },
  podcast: { name: 'Simulated podcast host', media: { least: 1, most: 1, only: HEARD }, worksOnIt: true },
  community_board: { name: 'Simulated community board', media: { most: 10 } },
};

const segmenter = new Intl.Segmenter('en');
const lengthOf = (text: string): number => [...segmenter.segment(text)].length;

type Asked = Pick<ChannelPost, 'text' | 'tags' | 'media' | 'audience'>;

/** Why a channel of that kind does not take a post; null: it does. */
export function refusalOf(kind: SimulatedKind, { text, tags, media, audience }: Asked): string | null {
  const length = lengthOf([text, ...(kind.tagsCount ? tags.map((tag) => `#${tag}`) : [])].join(' ').trim());
  if (kind.textLimit !== undefined && length > kind.textLimit)
    return `The text has ${length} characters, and ${kind.textLimit} are taken here`;
  const { least = 0, most = Infinity, only } = kind.media ?? {};
  if (media.length < least) return 'Words alone are not taken here';
  if (media.length > most) return `${media.length} files came, and ${most} ${most === 1 ? 'is' : 'are'} taken here`;
  const odd = media.find(({ mime }) => only !== undefined && !only.test(mime));
  if (odd) return `${odd.name} is of a kind that is not taken here`;
  if (kind.needsAudience && !audience) return 'Nobody is named who gets it';
  return text.trim() === '' && media.length === 0 ? 'There is nothing in it' : null;
}
