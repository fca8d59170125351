import { BEHAVIOURS, type Behaviour } from './behaviours.js';
import type { ChannelPost } from './channel-store.js';
import { KINDS } from './kinds.js';
import { escape, page } from './pages.js';
import { PAGE_ANSWERS, type SimulatedAnswer } from './simulated-pages.js';

const lines = (text: string): string => escape(text).replaceAll('\n', '<br>');
const timeOf = (at: string): string => `<time>${escape(at.slice(0, 16).replace('T', ' '))} UTC</time>`;

const pathOf = ({ channelId, reference }: ChannelPost): string => `/p/${encodeURIComponent(channelId)}/${encodeURIComponent(reference)}`;

/** A file of a post as one sees or hears it there. */
function medium(post: ChannelPost, { sha256, name, mime, alt, cover }: ChannelPost['media'][number]): string {
  const at = (file: string): string => `${pathOf(post)}/${encodeURIComponent(file)}`;
  const words = escape(alt || name);
  if (mime.startsWith('image/')) return `<img src="${at(sha256)}" alt="${words}" loading="lazy">`;
  if (mime.startsWith('video/'))
    return `<video controls preload="none" src="${at(sha256)}" aria-label="${words}"${cover ? ` poster="${at(cover)}"` : ''}></video>`;
  return mime.startsWith('audio/')
    ? `<audio controls preload="none" src="${at(sha256)}" aria-label="${words}"></audio>`
    : `<p class="to">${words}</p>`;
}

function content(post: ChannelPost): string {
  const parts = [
    ...(post.texts ?? []).map(({ name, text }) => `<p><b>${escape(name)}:</b> ${lines(text)}</p>`),
    post.html ? `<div>${post.html}</div>` : `<p>${lines(post.text)}</p>`,
    post.tags.length > 0 ? `<p>${post.tags.map((tag) => `#${escape(tag)}`).join(' ')}</p>` : '',
    post.link ? `<p>${escape(post.link)}</p>` : '',
    ...post.media.map((one) => medium(post, one)),
    post.audience ? `<p class="to">to ${escape(post.audience)}</p>` : '',
    post.firstComment ? `<p>First comment: ${lines(post.firstComment)}</p>` : '',
  ];
  return parts.join('');
}

const article = (post: ChannelPost): string =>
  `<article><h2><a href="${pathOf(post)}">${escape(post.from)}</a></h2>
<p class="to">published ${timeOf(post.publishedAt)}, meant for ${timeOf(post.meantFor)}</p>${content(post)}</article>`;

/** What was said of channels, of all (an empty kind) or of one kind. */
type Said = readonly [kind: string, said: { readonly behaviour: Behaviour; readonly share: number }];

const option = (value: string, words: string): string => `<option value="${value}">${words}</option>`;

const choice = (said: readonly Said[]): string =>
  `<form method="post" action="/behaviour">${said
    .filter(([, { behaviour }]) => behaviour !== 'fine')
    .map(([kind, { behaviour }]) => `<p>${KINDS[kind]?.name ?? 'Every channel'}: ${BEHAVIOURS[behaviour]}.</p>`)
    .join('')}
<label>Which channels<select name="kind">${option('', 'All of them')}${Object.entries(KINDS)
    .map(([kind, { name }]) => option(kind, name))
    .join('')}</select></label><label>How they behave<select name="behaviour">${Object.entries(BEHAVIOURS)
    .map(([name, words]) => option(name, `${name}: ${words}`))
    .join('')}</select></label><button>Behave like that</button></form>`;

type SaidOfPage = readonly [address: string, answer: SimulatedAnswer];

const pageForm = (said: readonly SaidOfPage[]): string =>
  `<form method="post" action="/pages/say"><p>Every page that a link leads to is there${said.length === 0 ? '' : ', but for these'}.</p>
${said.map(([address, answer]) => `<p>${escape(address)} ${PAGE_ANSWERS[answer].words}</p>`).join('\n')}
<label>Address of a page<input name="address" type="url" required></label><label>What it answers<select name="answer">${Object.entries(
    PAGE_ANSWERS,
  )
    .map(([name, { words }]) => `<option value="${name}">${words}</option>`)
    .join('')}</select></label><button>Answer like that</button></form>`;

/** What was published, newest first, how the channels behave, and which pages are not there. */
export const channelsPage = (posts: readonly ChannelPost[], said: readonly Said[], pages: readonly SaidOfPage[]): string =>
  page(
    'Channels of the demo',
    `<p>Nothing is really published: all that goes out by itself ends here. ${posts.length === 0 ? 'Nothing has come yet.' : `${posts.length} published, newest first.`}</p>
${choice(said)}
${pageForm(pages)}
${posts.slice(0, 100).map(article).join('\n')}`,
  );

export const postPage = (post: ChannelPost): string =>
  page(
    escape(post.from),
    `<p class="to">published ${timeOf(post.publishedAt)}</p>${content(post)}<p><a href="/">All that was published</a></p>`,
  );
