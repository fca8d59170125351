import { createHash } from 'node:crypto';
import type { AskAnswer, PostAnswer } from '@zesting/core';

/** How a channel is called. See docs/channels.md for what is said there. */
export interface ChannelAt {
  /** without a slash at its end */
  readonly address: string;
  /** empty: none is sent */
  readonly token: string;
  readonly timeoutMs: number;
}

/** What a channel is given to publish. */
export interface OutgoingPost {
  readonly reference: string;
  readonly from: string;
  readonly text: string;
  /** the same with headings, lists and links; null: it is words alone */
  readonly html: string | null;
  /** what there is besides, such as a subject line */
  readonly texts: readonly { readonly name: string; readonly text: string }[];
  readonly tags: readonly string[];
  readonly link: string | null;
  readonly audience: string | null;
  readonly media: readonly {
    readonly sha256: string;
    readonly name: string;
    readonly mime: string;
    readonly alt: string;
    /** the picture that stands for a clip before it plays, by its SHA-256; null: the channel takes what it wants */
    readonly cover: string | null;
  }[];
  readonly meantFor: string;
}

/** The most that is read of an answer, in characters. */
const ANSWER_LENGTH = 20_000;
const REASON_LENGTH = 300;
const ADDRESS_LENGTH = 2_000;

/** What ends a call before anything of it has left: no connection came about. All else may have been taken at the other end. */
const NOTHING_LEFT = new Set([
  'ECONNREFUSED',
  'ENOTFOUND',
  'EAI_AGAIN',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'UND_ERR_CONNECT_TIMEOUT',
  'DEPTH_ZERO_SELF_SIGNED_CERT',
  'SELF_SIGNED_CERT_IN_CHAIN',
  'UNABLE_TO_VERIFY_LEAF_SIGNATURE',
  'CERT_HAS_EXPIRED',
  'ERR_TLS_CERT_ALTNAME_INVALID',
]);

/** What a failure says of itself; a failed connection is told as its cause. */
function told(error: unknown): { readonly code?: unknown; readonly name?: unknown } {
  if (typeof error !== 'object' || error === null) return {};
  return 'cause' in error && typeof error.cause === 'object' && error.cause !== null ? error.cause : error;
}

const hasLeft = (error: unknown): boolean => !NOTHING_LEFT.has(String(told(error).code));

function wordsOf(error: unknown): string {
  const { code, name } = told(error);
  if (name === 'TimeoutError') return 'It took too long to answer';
  return typeof code === 'string' ? `The connection failed (${code})` : 'The connection broke off';
}

interface Answer {
  readonly status: number;
  readonly body: Readonly<Record<string, unknown>>;
  readonly retryAfter: string | null;
}

async function call({ address, token, timeoutMs }: ChannelAt, method: string, path: string, body?: Buffer | object): Promise<Answer> {
  const isBytes = Buffer.isBuffer(body);
  const response = await fetch(`${address}${path}`, {
    method,
    redirect: 'manual', // what is put elsewhere is put by somebody else's word
    signal: AbortSignal.timeout(timeoutMs),
    headers: {
      ...(token === '' ? {} : { Authorization: `Bearer ${token}` }),
      ...(body === undefined ? {} : { 'Content-Type': isBytes ? 'application/octet-stream' : 'application/json' }),
    },
    body: body === undefined ? null : isBytes ? new Uint8Array(body) : JSON.stringify(body),
  });
  return { status: response.status, body: await bodyOf(response), retryAfter: response.headers.get('retry-after') };
}

/** What was answered, as far as it is an object of JSON of moderate length; else nothing. */
async function bodyOf(response: Response): Promise<Readonly<Record<string, unknown>>> {
  let text = '';
  const decoder = new TextDecoder();
  for await (const part of response.body ?? []) {
    text += decoder.decode(part as Uint8Array, { stream: true });
    if (text.length > ANSWER_LENGTH) break;
  }
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : {};
  } catch {
    return {};
  }
}

/** Words that the database and a page can take. */
const plain = (value: unknown, length: number): string =>
  typeof value === 'string'
    ? value
        .replace(/[\0\p{Surrogate}]/gu, '')
        .trim()
        .slice(0, length)
    : '';

const reasonOf = ({ status, body }: Answer): string => plain(body['reason'], REASON_LENGTH) || `It answered ${status}`;

function publishedOf({ body }: Answer): Extract<PostAnswer, { kind: 'published' }> {
  const address = plain(body['address'], ADDRESS_LENGTH);
  const at = typeof body['publishedAt'] === 'string' ? Date.parse(body['publishedAt']) : NaN;
  const isWeb = URL.canParse(address) && ['http:', 'https:'].includes(new URL(address).protocol);
  return { kind: 'published', address: isWeb ? address : null, at: Number.isNaN(at) ? null : new Date(at).toISOString() };
}

/** Seconds to wait by a Retry-After of seconds; its form with a date is not read. @see RFC 9110 10.2.3 */
const secondsOf = (retryAfter: string | null): number | null => (/^\d{1,7}$/.test(retryAfter ?? '') ? Number(retryAfter) : null);

/** Puts a post. What came of it, as far as one can know. */
export async function putPost(at: ChannelAt, post: OutgoingPost): Promise<PostAnswer> {
  try {
    const answer = await call(at, 'POST', '/posts', post);
    const { status } = answer;
    if (status === 202) return { kind: 'accepted' };
    if (status >= 200 && status < 300) return publishedOf(answer);
    if (status === 429) return { kind: 'limited', afterSeconds: secondsOf(answer.retryAfter) };
    // an error at the other end or on the way may have come after the post
    return status >= 500 || status === 408 ? { kind: 'unknown', reason: reasonOf(answer) } : { kind: 'refused', reason: reasonOf(answer) };
  } catch (error) {
    return { kind: hasLeft(error) ? 'unknown' : 'unreachable', reason: wordsOf(error) };
  }
}

/** Asks what became of a post, and that it is never taken any more if it is not there. */
export async function askForPost(at: ChannelAt, reference: string): Promise<AskAnswer> {
  try {
    const answer = await call(at, 'POST', `/posts/${reference}/settle`);
    const { status, body } = answer;
    if (status !== 200) return { kind: 'silent', reason: reasonOf(answer) };
    if (body['state'] === 'published') return publishedOf(answer);
    if (body['state'] === 'pending') return { kind: 'pending' };
    if (body['state'] === 'refused') return { kind: 'refused', reason: reasonOf(answer) };
    if (body['state'] === 'none') return { kind: 'none', isFinal: body['final'] === true };
    return { kind: 'silent', reason: 'Its answer cannot be read' };
  } catch (error) {
    return { kind: 'silent', reason: wordsOf(error) };
  }
}

/** Puts the first comment under a post; put twice it is there once. */
export async function putComment(at: ChannelAt, reference: string, text: string): Promise<boolean> {
  try {
    const { status } = await call(at, 'PUT', `/posts/${reference}/first-comment`, { text });
    return status >= 200 && status < 300;
  } catch {
    return false;
  }
}

/** Brings files that the channel does not have yet; nothing of it is seen by anybody. @returns null, or what stands in the way */
export async function bringFile(at: ChannelAt, sha256: string, read: () => Promise<Buffer>): Promise<PostAnswer | null> {
  try {
    const known = await call(at, 'HEAD', `/files/${sha256}`);
    if (known.status === 200) return null;
    const bytes = await read().catch(() => null); // a full or broken disk is none of the channel's
    if (bytes === null) return { kind: 'refused', reason: 'A file is no longer where it was kept' };
    if (createHash('sha256').update(bytes).digest('hex') !== sha256) return { kind: 'refused', reason: 'A file is no longer as it was' };
    const answer = await call(at, 'PUT', `/files/${sha256}`, bytes);
    if (answer.status >= 200 && answer.status < 300) return null;
    if (answer.status === 429) return { kind: 'limited', afterSeconds: secondsOf(answer.retryAfter) };
    return { kind: answer.status >= 500 ? 'unreachable' : 'refused', reason: reasonOf(answer) };
  } catch (error) {
    return { kind: 'unreachable', reason: wordsOf(error) }; // files alone are not published: nothing can have gone out
  }
}

/** What a channel says of itself, or why it cannot be reached. */
export async function tryChannel(at: ChannelAt): Promise<{ readonly name: string | null; readonly reason: string | null }> {
  try {
    const answer = await call(at, 'GET', '/about');
    const name = plain(answer.body['name'], 200);
    return answer.status === 200 && name !== '' ? { name, reason: null } : { name: null, reason: reasonOf(answer) };
  } catch (error) {
    return { name: null, reason: wordsOf(error) };
  }
}
