import { fail, isOpenRequest, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { tellManagers } from '../../notices/index.js';
import { claimFiles } from '../../production/index.js';
import { RequestMessage } from '../entities/request-message.entity.js';
import { Request } from '../entities/request.entity.js';
import { lockRequest } from './decide-request.js';
import { tellRequester } from './tell-requester.js';

type Decided = { code: 'request.already_decided' };

const record = (
  tx: Tx,
  request: Request,
  verb: string,
  actor: string,
  now: string,
  detail: Readonly<Record<string, unknown>> = {},
): Promise<void> => recordActivity(tx, { clientId: request.clientId, thing: 'request', thingId: request.id, verb, actor, detail, at: now });

/** Asks the requester something by mail and on their page. From now on it is their turn: the request waits for an answer. */
export function askBack(
  app: App,
  viewer: Viewer,
  requestId: string,
  text: string,
): Promise<Result<null, Decided | { code: 'request.no_address' }>> {
  return app.write<null, Decided | { code: 'request.no_address' }>(async (tx, now) => {
    const request = await lockRequest(tx, requestId);
    if (!isOpenRequest(request.state)) return fail({ code: 'request.already_decided' });
    if (request.requesterEmail === null) return fail({ code: 'request.no_address' });
    await tx.insert(RequestMessage, { requestId, author: 'agency', name: viewer.name, text, at: now });
    Object.assign(request, { state: 'asked_back', readAt: request.readAt ?? now, version: request.version + 1 });
    await tx.save(request);
    await record(tx, request, 'request.asked_back', viewer.name, now, { text });
    await tellRequester(app, tx, request, (words, title) => words.asked(title, text), 'answer');
    return ok(null);
  });
}

type AnswerFailure = { code: 'file.unknown' | 'ask.too_much' };

/** What a requester writes, with files that were sent before. */
export interface Written {
  readonly text: string;
  readonly assetIds: readonly string[];
  /** who writes, if not the requester */
  readonly name?: string;
}

/** Takes the requester's answer, with files: the request is the agency's turn again, and unread. What is decided already still takes a word. */
export const answerBack = (app: App, requestId: string, written: Written): Promise<Result<null, AnswerFailure>> =>
  app.write<null, AnswerFailure>((tx, now) => putAnswer(app, tx, requestId, written, now));

/** Puts what a requester writes to their request, in the caller's transaction. */
export async function putAnswer(
  app: App,
  tx: Tx,
  requestId: string,
  { text, assetIds, name }: Written,
  now: string,
): Promise<Result<null, AnswerFailure>> {
  const request = await lockRequest(tx, requestId);
  const author = name ?? request.requesterName;
  if ((await tx.countBy(RequestMessage, { requestId, author: 'requester' })) >= MESSAGES_LIMIT) return fail({ code: 'ask.too_much' });
  if (!(await claimFiles(tx, [...assetIds], requestId, request.clientId))) return fail({ code: 'file.unknown' });
  await tx.insert(RequestMessage, { requestId, author: 'requester', name: author, text, at: now });
  if (isOpenRequest(request.state)) Object.assign(request, { state: 'new', readAt: null });
  request.version += 1;
  await tx.save(request);
  await record(tx, request, 'request.answered', author, now);
  await tellManagers(app, tx, {
    clientId: request.clientId,
    heading: `An answer: ${request.title}`,
    text: `${author} wrote about “${request.title}”.`,
    path: `/requests/${request.id}`,
  });
  return ok(null);
}

/** The most that a requester writes about one request: far more than anybody does, far less than would bury the managers. */
const MESSAGES_LIMIT = 100;

/** Takes a request back, while nobody has decided. */
export function withdrawRequest(app: App, requestId: string): Promise<Result<null, Decided>> {
  return app.write<null, Decided>(async (tx, now) => {
    const request = await lockRequest(tx, requestId);
    if (!isOpenRequest(request.state)) return fail({ code: 'request.already_decided' });
    Object.assign(request, { state: 'withdrawn', decidedAt: now, version: request.version + 1 });
    await tx.save(request);
    // who asked for the same still does: their requests stand alone again, unread
    await tx.update(Request, { mergedInto: requestId }, { state: 'new', mergedInto: null, decidedAt: null, readAt: null });
    await record(tx, request, 'request.withdrawn', request.requesterName, now);
    await tellManagers(app, tx, {
      clientId: request.clientId,
      heading: `Taken back: ${request.title}`,
      text: `${request.requesterName} does not ask for “${request.title}” any more.`,
      path: `/requests/${request.id}`,
    });
    return ok(null);
  });
}
