import { readFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import {
  afterAsk,
  afterLimit,
  afterPost,
  afterStop,
  commentAgainIn,
  handOut,
  ok,
  type AskAnswer,
  type ChannelRules,
  type Content,
  type InstantText,
  type PostAnswer,
  type SendingFacts,
  type SendingStep,
} from '@zesting/core';
import { ZESTING } from '../../../platform/access/viewers.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { WAIT_MS } from '../../../platform/files/pictures.js';
import { mediaOut, Version, type FileOut } from '../../production/index.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { addJob } from '../../../platform/jobs/jobs.js';
import { tellClients } from '../../../platform/live/live.js';
import { lockPlacement, putOut } from '../../calendar/index.js';
import { replan } from '../../planning/index.js';
import { askForPost, bringFile, putComment, putPost, type ChannelAt, type OutgoingPost } from '../channel-client.js';
import { ChannelLink } from '../entities/channel-link.entity.js';
import { Sending } from '../entities/sending.entity.js';
import { channelAt } from '../queries/channel-at.js';
import { isStopped } from '../queries/stops.js';
import { tellTrouble } from '../tell.js';
import { SEND } from './claim.js';

/** A file may take so many times as long as an answer. */
const FILE_PATIENCE = 6;
/** What waits no longer than this has a job of its own; all else is found by the clock, every minute. */
const SOON_SECONDS = 60;
/** Seconds beyond its own patience, and what it waits for a picture to be cut, after which whoever was at it counts as gone. */
const MARGIN_SECONDS = 5 + WAIT_MS / 1000;

/** For how long a sending that somebody is at is left to them, in seconds. */
export const leaseSeconds = ({ config }: App): number => config.channelSeconds * (FILE_PATIENCE + 1) + MARGIN_SECONDS;

const later = (now: InstantText, seconds: number): InstantText => new Date(Date.parse(now) + seconds * 1000).toISOString();
const secondsBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 1000;

const factsOf = ({ tries, asks, untilAt, postedAt }: Sending, now: InstantText): SendingFacts => ({
  tries,
  asks,
  secondsLeft: secondsBetween(now, untilAt),
  sincePosted: postedAt === null ? 0 : secondsBetween(postedAt, now),
});

/** Goes on with a sending that is due: puts it, asks for it, or puts its first comment. Calls to the channel are outside of every transaction. */
export async function goOn(app: App, sendingId: string): Promise<void> {
  const sending = await app.manager.findOneByOrFail(Sending, { id: sendingId });
  const at = await channelAt(app, sending.channelId);
  if (sending.settledAt !== null) return sending.commentState === 'waiting' ? comment(app, sending, at) : undefined;
  if (sending.state !== 'claimed') return ask(app, sending, at);
  if (!at)
    return void (await settleWith(app, sending, (facts) =>
      afterPost({ kind: 'unreachable', reason: 'Nobody knows how to reach it' }, facts),
    ));
  const tryLater = (hurdle: PostAnswer) =>
    settleWith(app, sending, (facts) => afterPost(hurdle, { ...facts, tries: facts.tries + 1 }), { isTry: true });
  const going = await whatGoes(app, sending);
  if (going === 'being_made') return void (await tryLater({ kind: 'unreachable', reason: 'A picture is still being cut' }));
  const { content, media, from } = going;
  for (const { hash } of media) {
    const hurdle = await bringFile({ ...at, timeoutMs: at.timeoutMs * FILE_PATIENCE }, hash, () => readFile(app.files.pathOf(hash)));
    if (hurdle) return void (await tryLater(hurdle));
  }
  const begun = await begin(app, sending);
  if (!begun) return;
  const link = await app.manager.findOneByOrFail(ChannelLink, { channelId: sending.channelId });
  const { text, html, texts, link: address } = handOut(content, sending.channelId);
  const post: OutgoingPost = {
    reference: begun.reference,
    from,
    text,
    html,
    texts,
    tags: content.channels[sending.channelId]?.tags ?? [],
    link: address === '' ? null : address,
    audience: link.audience === '' ? null : link.audience,
    media: media.flatMap((file) => (file.coverOf === null ? [postedFile(file, media)] : [])),
    meantFor: begun.publishAt,
  };
  const answer = await putPost(at, post);
  await settleWith(app, begun, (facts) => afterPost(answer, facts), { answer });
}

/** A file as a post names it; what stands for a clip comes right behind it. */
function postedFile(file: FileOut, media: readonly FileOut[]): OutgoingPost['media'][number] {
  const { hash: sha256, name, mime, alt } = file;
  const behind = media[media.indexOf(file) + 1];
  return { sha256, name, mime, alt, cover: behind && behind.coverOf !== null ? behind.hash : null };
}

interface Outgoing {
  readonly content: Content;
  /** with the covers of clips */
  readonly media: readonly FileOut[];
  /** the client and the channel, as the other end shows them */
  readonly from: string;
}

/** What the frozen version sends to the channel. */
async function whatGoes(app: App, { versionId, channelId }: Sending): Promise<Outgoing | 'being_made'> {
  const [row] = await app.read<{ content: Content; rules: Pick<ChannelRules, 'mediaLimit'>; from: string }>(
    `select v.content, jsonb_build_object('mediaLimit', h.media_limit) as rules, c.name || ', ' || h.name as from
     from versions v, channels h join clients c on c.id = h.client_id where v.id = $1 and h.id = $2`,
    [versionId, channelId],
  );
  if (!row) throw new Error('what is sent went away');
  const { content, rules } = row;
  const files = await mediaOut(app, [{ media: content.shared.media, part: content.channels[channelId], rules }]);
  if (files === 'being_made') return files;
  return { content, media: files.flat(), from: row.from };
}

/**
 * The last moment before something may leave: once more, what goes is what is signed and stands there, nothing is stopped, and the channel's limit is
 * kept. From here on it counts as perhaps out until the channel says otherwise.
 * @returns null where it does not go
 */
async function begin(app: App, { id, placementId, reference }: Sending): Promise<Sending | null> {
  const begun = await app.write<Sending | null, never>(async (tx, now) => {
    const { placement, piece } = await lockPlacement(tx, placementId);
    const sending = await tx.findOneOrFail(Sending, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (sending.state !== 'claimed' || sending.reference !== reference) return ok(null);
    const link = await tx.findOne(ChannelLink, { where: { channelId: sending.channelId }, lock: { mode: 'pessimistic_write' } });
    const facts = factsOf(sending, now);
    if (!link || (await isStopped(tx, sending.channelId))) return ok(await apply(app, tx, sending, afterStop(facts), now));
    const wait = await limitWait(tx, link, now);
    if (wait !== null) return ok(await apply(app, tx, sending, afterLimit(wait, facts), now));
    const [state] = await replan(tx, [piece.id], now);
    const isSigned = state?.signOff.shared === 'signed' && state.signOff.channels[placement.channelId] === 'signed';
    const stands = [piece.digests.shared, piece.digests.channels[placement.channelId] ?? ''];
    if (!isSigned || piece.shelved || String(stands) !== String(sending.digests)) {
      const step: SendingStep = { state: 'failed', inSeconds: null, code: 'not_ready', reason: 'It was changed meanwhile', isAnew: false };
      return ok(await apply(app, tx, sending, step, now));
    }
    const nextAt = later(now, app.config.channelSeconds + MARGIN_SECONDS);
    Object.assign(sending, { state: 'posted', postedAt: now, tries: sending.tries + 1, asks: 0, nextAt });
    return ok(await tx.save(sending));
  });
  return begun.ok ? begun.value : null;
}

/** Seconds until the channel takes another one; null: it does now. The link is locked: whoever else begins there waits. */
async function limitWait(tx: Tx, { channelId, dailyLimit, minuteLimit }: ChannelLink, now: InstantText): Promise<number | null> {
  const waits: number[] = [];
  for (const [limit, seconds] of [
    [dailyLimit, 86_400],
    [minuteLimit, 60],
  ] as const) {
    if (limit === null) continue;
    const sent = await rowsOf<{ at: string }>(
      tx,
      `select to_char(posted_at, 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at from sendings where channel_id = $1
         and posted_at > $2::timestamptz - make_interval(secs => $4::int) and state in ('posted', 'unsure', 'out') order by posted_at desc limit $3`,
      [channelId, now, limit, seconds],
    );
    const oldest = sent[limit - 1];
    if (oldest) waits.push(Math.ceil(secondsBetween(now, oldest.at) + seconds));
  }
  return waits.length === 0 ? null : Math.max(...waits);
}

/** Asks the channel what became of it. */
async function ask(app: App, sending: Sending, at: ChannelAt | undefined): Promise<void> {
  const answer: AskAnswer = at ? await askForPost(at, sending.reference) : { kind: 'silent', reason: 'Nobody knows how to reach it' };
  await settleWith(app, sending, (facts) => afterAsk(answer, { ...facts, asks: facts.asks + 1 }), { answer, isAsk: true });
}

interface Settling {
  readonly answer?: PostAnswer | AskAnswer;
  readonly isAsk?: boolean;
  /** something was tried before anything of it could leave */
  readonly isTry?: boolean;
}

/** Stores what follows from an answer, unless something else became of it meanwhile. */
async function settleWith(
  app: App,
  { id, placementId, reference, tries }: Sending,
  next: (facts: SendingFacts) => SendingStep,
  { answer, isAsk = false, isTry = false }: Settling = {},
): Promise<void> {
  await app.write<null, never>(async (tx, now) => {
    await lockPlacement(tx, placementId);
    const sending = await tx.findOneOrFail(Sending, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (sending.settledAt !== null || sending.reference !== reference || sending.tries !== tries) return ok(null);
    const step = next(factsOf(sending, now));
    sending.asks += isAsk ? 1 : 0;
    sending.tries += isTry ? 1 : 0;
    await apply(app, tx, sending, step, now, answer?.kind === 'published' ? answer : undefined);
    return ok(null);
  });
}

type Published = Extract<PostAnswer, { kind: 'published' }>;

/** Stores a step, and what it means for the placement. Answers null: nothing is to be put now. */
async function apply(app: App, tx: Tx, sending: Sending, step: SendingStep, now: InstantText, published?: Published): Promise<null> {
  const was = sending.state;
  const { state, inSeconds, code, reason, isAnew } = step;
  const isOver = state === 'out' || state === 'failed';
  const hasComment = state === 'out' && sending.commentState === 'waiting';
  Object.assign(sending, {
    state,
    code,
    reason,
    reference: isAnew ? randomUUID() : sending.reference,
    postedAt: state === 'claimed' || state === 'failed' ? null : sending.postedAt,
    nextAt: hasComment ? now : inSeconds === null ? null : later(now, inSeconds),
    settledAt: isOver ? now : null,
    commentState: state === 'failed' ? 'none' : sending.commentState,
  });
  await tx.save(sending);
  const { pieceId } = (await lockPlacement(tx, sending.placementId)).placement;
  if (state === 'out') {
    // a channel whose clock is ahead of ours has not published in the future
    const at = published?.at && Date.parse(published.at) <= Date.parse(now) ? published.at : now;
    const { versionId, digests } = sending;
    if (versionId === null || digests === null) throw new Error('something is out that was never sent');
    await putOut(
      app,
      tx,
      ZESTING,
      sending.placementId,
      { versionId, digests, at, address: published?.address ?? null, detail: { byItself: true } },
      now,
    );
  } else {
    await replan(tx, [pieceId], now);
    await tellClients(tx, [pieceId], 'more');
  }
  if (state !== was && (state === 'failed' || state === 'unsure')) {
    await tellTrouble(app, tx, sending, state);
    await recordTrouble(tx, sending, pieceId, now);
  }
  const soon = hasComment ? 0 : inSeconds;
  if (soon !== null && soon < SOON_SECONDS) await addJob(tx, SEND, {}, { queue: SEND, inSeconds: soon + 0.1 });
  return null;
}

async function recordTrouble(tx: Tx, sending: Sending, pieceId: string, now: InstantText): Promise<void> {
  const [channel] = await rowsOf<{ name: string }>(tx, 'select name from channels where id = $1', [sending.channelId]);
  await recordActivity(tx, {
    clientId: sending.clientId,
    thing: 'piece',
    thingId: pieceId,
    verb: sending.state === 'unsure' ? 'placement.unsure' : 'placement.failed',
    actor: ZESTING.name,
    detail: { channel: channel?.name, ...(sending.reason ? { reason: sending.reason } : {}) },
    at: now,
  });
}

/** Puts the first comment under what is out. */
async function comment(app: App, sending: Sending, at: ChannelAt | undefined): Promise<void> {
  const { content } = await app.manager.findOneByOrFail(Version, { id: sending.versionId ?? '' });
  const { firstComment } = handOut(content, sending.channelId);
  const isThere = at !== undefined && (await putComment(at, sending.reference, firstComment));
  await app.write<null, never>(async (tx, now) => {
    const { placement } = await lockPlacement(tx, sending.placementId);
    const found = await tx.findOneOrFail(Sending, { where: { id: sending.id }, lock: { mode: 'pessimistic_write' } });
    if (found.commentState !== 'waiting') return ok(null);
    const tries = found.commentTries + 1;
    const wait = isThere ? null : commentAgainIn(tries);
    const commentState = isThere ? 'placed' : wait === null ? 'given_up' : 'waiting';
    Object.assign(found, { commentTries: tries, commentState, nextAt: wait === null ? null : later(now, wait) });
    await tx.save(found);
    if (commentState === 'given_up') await tellTrouble(app, tx, found, 'comment');
    if (wait !== null && wait < SOON_SECONDS) await addJob(tx, SEND, {}, { queue: SEND, inSeconds: wait + 0.1 });
    await tellClients(tx, [placement.pieceId], 'more');
    return ok(null);
  });
}
