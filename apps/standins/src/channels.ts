import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { BEHAVIOURS, type Behaviour } from './behaviours.js';
import { channelsPage, postPage } from './channel-pages.js';
import { ChannelStore, type ChannelPost } from './channel-store.js';
import { KINDS, refusalOf, type SimulatedKind } from './kinds.js';
import { draftOf, type AskedDraft } from './simulated-aid.js';
import { PAGE_ANSWERS, SimulatedPages, type SimulatedAnswer } from './simulated-pages.js';

export interface Channels {
  readonly store: ChannelStore;
  readonly pages: SimulatedPages;
  readonly address: string;
  /** how channels behave from now on, those of one kind or all of them, to a share of the calls; to all others they are fine */
  readonly behave: (behaviour: Behaviour, share?: number, kind?: string) => void;
  readonly close: () => Promise<void>;
}

const LATER_MS = 3_000;
const SLOW_MS = 30_000;
const FILE_LIMIT_BYTES = 300 * 1024 * 1024;

/**
 * Runs simulated channels on loopback: `/c/<kind>/<channel>` speaks the interface of channels with what a channel of that kind takes, `/c/<channel>` takes whatever comes;
 * `/pages` asks for pages of a simulated web, `/drafts` drafts, `/` shows what was published and how all of it behaves.
 */
export async function startChannels({ port, folder }: { readonly port: number; readonly folder: string | null }): Promise<Channels> {
  const store = new ChannelStore(folder);
  const pages = new SimulatedPages(folder);
  const ALL = '';
  const said = new Map<string, { readonly behaviour: Behaviour; readonly share: number }>();
  /** What was said of all holds for a kind until something was said of it. */
  const behave = (behaviour: Behaviour, share = 1, kind = ALL) => {
    if (kind === ALL) said.clear();
    said.set(kind, { behaviour, share });
  };
  const behaviourOf = (kind: string): Behaviour => {
    const { behaviour, share } = said.get(kind) ?? said.get(ALL) ?? { behaviour: 'fine', share: 1 };
    return Math.random() < share ? behaviour : 'fine';
  };
  const underWay = new Set<string>();
  const server: Server = createServer((request, response) => {
    answer(request, response).catch(() => response.headersSent || response.writeHead(400).end('This cannot be read.'));
  });

  async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const path = new URL(request.url ?? '/', 'http://localhost').pathname;
    const [, place, ...rest] = path.split('/');
    if (place === 'c') {
      const kind = Object.hasOwn(KINDS, rest[0] ?? '') ? (rest.shift() ?? '') : '';
      const [channelId = '', what = '', reference = '', more] = rest;
      const behaviour = behaviourOf(kind);
      if (behaviour === 'away') return void request.socket.destroy();
      return channel({ request, response, kind: KINDS[kind], channelId, what, reference, more, behaviour });
    }
    const [channelId = '', reference = '', sha256] = rest;
    if (path === '/drafts' && request.method === 'POST')
      return json(response, 200, { draft: draftOf(JSON.parse((await bytesOf(request)).toString()) as AskedDraft) });
    if (path === '/pages' && request.method === 'POST') return askForPage(request, response);
    if (path === '/pages/say' && request.method === 'POST') return sayOfPage(request, response);
    if (path === '/posts.json') return json(response, 200, store.list());
    if (path === '/behaviour' && request.method === 'POST') return behaveAs(request, response);
    const shown = place === 'p' ? store.find(channelId, reference) : undefined;
    if (shown && sha256 !== undefined) return fileOf(response, shown, sha256);
    const html = shown ? postPage(shown) : place === '' ? channelsPage(store.list(), [...said], pages.list()) : undefined;
    response.writeHead(html === undefined ? 404 : 200, {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy':
        "default-src 'none'; style-src 'unsafe-inline'; img-src data: 'self'; media-src 'self'; form-action 'self'",
    });
    response.end(html ?? 'There is nothing here.');
  }

  async function behaveAs(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const form = new URLSearchParams((await bytesOf(request)).toString());
    const [wanted, kind] = [form.get('behaviour') ?? '', form.get('kind') ?? ALL];
    if (!Object.hasOwn(BEHAVIOURS, wanted)) return json(response, 422, { reason: 'There is no such behaviour' });
    if (kind !== ALL && !Object.hasOwn(KINDS, kind)) return json(response, 422, { reason: 'There is no such kind of channel' });
    behave(wanted as Behaviour, Number(form.get('share') ?? 1), kind); // one of its keys
    response.writeHead(303, { Location: '/' }).end();
  }

  /** A picture, clip or sound of a post, as it came. */
  function fileOf(response: ServerResponse, post: ChannelPost, sha256: string): void {
    const medium = post.media.find((one) => one.sha256 === sha256 || one.cover === sha256);
    const bytes = medium && store.file(sha256);
    if (!bytes) return void response.writeHead(404).end('There is nothing here.');
    // a cover is a picture, of which its first bytes say which
    const type = medium.sha256 === sha256 ? { 'Content-Type': medium.mime, 'X-Content-Type-Options': 'nosniff' } : {};
    response.writeHead(200, { ...type, 'Content-Security-Policy': "default-src 'none'; sandbox" }).end(bytes);
  }

  async function askForPage(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { address } = JSON.parse((await bytesOf(request)).toString()) as { address: string };
    json(response, 200, { status: pages.statusOf(address) });
  }

  async function sayOfPage(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const form = new URLSearchParams((await bytesOf(request)).toString());
    const [address, answer] = [form.get('address')?.trim() ?? '', form.get('answer') ?? ''];
    if (address === '' || !Object.hasOwn(PAGE_ANSWERS, answer)) return json(response, 422, { reason: 'There is no such page or answer' });
    pages.say(address, answer as SimulatedAnswer); // one of its keys
    response.writeHead(303, { Location: '/' }).end();
  }

  interface Call {
    readonly request: IncomingMessage;
    readonly response: ServerResponse;
    /** undefined: a channel that takes whatever comes */
    readonly kind: SimulatedKind | undefined;
    readonly channelId: string;
    readonly what: string;
    readonly reference: string;
    readonly more: string | undefined;
    readonly behaviour: Behaviour;
  }

  async function channel(call: Call): Promise<void> {
    const { request, response, kind, channelId, what, reference, more } = call;
    const route = `${request.method} ${what}${more ? `/${more}` : ''}`;
    if (request.headers.authorization === 'Bearer ended') return json(response, 401, { reason: 'This access has ended' });
    if (route === 'GET about') return json(response, 200, { name: kind?.name ?? 'Simulated channel' });
    if (route === 'HEAD files') return void response.writeHead(store.file(reference) ? 200 : 404).end();
    if (route === 'PUT files') {
      const isWhole = store.putFile(reference, await bytesOf(request));
      return isWhole ? void response.writeHead(204).end() : json(response, 422, { reason: 'The file is not what its hash says' });
    }
    if (route === 'POST posts/settle') return settle(call);
    if (route === 'PUT posts/first-comment') {
      const { text } = JSON.parse((await bytesOf(request)).toString()) as { text: string };
      if (kind?.isLetter) return json(response, 404, { reason: 'Nobody can comment here' });
      if (!store.find(channelId, reference)) return json(response, 404, { reason: 'There is no such post' });
      store.comment(channelId, reference, text);
      return void response.writeHead(204).end();
    }
    if (route === 'POST posts') return take(call);
    json(response, 404, { reason: 'There is nothing here' });
  }

  async function take({ request, response, kind, channelId, behaviour }: Call): Promise<void> {
    const asked = JSON.parse((await bytesOf(request)).toString()) as Omit<ChannelPost, 'channelId' | 'publishedAt' | 'firstComment'>;
    const key = `${channelId} ${asked.reference}`;
    if (behaviour === 'refuses') return json(response, 422, { reason: 'This is not taken here: the channel says no' });
    if (behaviour === 'limits') return void response.writeHead(429, { 'Retry-After': '60' }).end();
    if (store.isClosed(channelId, asked.reference)) return json(response, 409, { reason: 'This reference is closed' });
    const refusal = kind && refusalOf(kind, asked);
    if (refusal) return json(response, 422, { reason: refusal });
    const lost = asked.media.find(({ sha256 }) => !store.file(sha256));
    if (lost) return json(response, 422, { reason: `The file ${lost.name} did not come` });
    if (behaviour === 'vague') {
      store.breakDown(channelId, asked.reference);
      return json(response, 503, { reason: 'Something broke down here' });
    }
    if (behaviour === 'silent') return; // whoever called waits until it gives up
    const publish = () => {
      underWay.delete(key);
      const post = { ...asked, channelId, publishedAt: new Date().toISOString(), firstComment: null };
      store.add(post);
      return answerOf(request, kind, post);
    };
    if (behaviour === 'later' || (behaviour === 'fine' && kind?.worksOnIt)) {
      underWay.add(key);
      setTimeout(publish, LATER_MS).unref();
      return json(response, 202, {});
    }
    const published = publish();
    if (behaviour === 'loses') return void request.socket.destroy();
    if (behaviour === 'slow') await new Promise((resolve) => setTimeout(resolve, SLOW_MS).unref());
    json(response, 201, published);
  }

  /** What became of a post. What is not there is never taken under that reference any more, unless it cannot say. */
  function settle({ request, response, kind, channelId, reference }: Call): void {
    const post = store.find(channelId, reference);
    if (post) return json(response, 200, { state: 'published', ...answerOf(request, kind, post) });
    if (underWay.has(`${channelId} ${reference}`)) return json(response, 200, { state: 'pending' });
    if (store.isBroken(channelId, reference)) return json(response, 200, { state: 'none', final: false });
    store.close(channelId, reference);
    json(response, 200, { state: 'none', final: true });
  }

  await new Promise<void>((resolve, reject) => server.once('error', reject).listen(port, '127.0.0.1', resolve));
  const bound = server.address();
  const close = async () => {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  };
  return {
    store,
    pages,
    address: `http://127.0.0.1:${typeof bound === 'object' && bound ? bound.port : port}`,
    behave,
    close,
  };
}

/** Where a post is seen, and since when. */
const answerOf = (request: IncomingMessage, kind: SimulatedKind | undefined, { channelId, reference, publishedAt }: ChannelPost) => ({
  ...(kind?.isLetter ? {} : { address: `http://${request.headers.host ?? '127.0.0.1'}/p/${channelId}/${reference}` }),
  publishedAt,
});

const json = (response: ServerResponse, status: number, body: unknown): void =>
  void response.writeHead(status, { 'Content-Type': 'application/json' }).end(JSON.stringify(body));

async function bytesOf(request: IncomingMessage): Promise<Buffer> {
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of request) {
    bytes += (part as Buffer).length; // no encoding is set: buffers
    if (bytes > FILE_LIMIT_BYTES) throw new Error('too large');
    parts.push(part as Buffer);
  }
  return Buffer.concat(parts);
}
