import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { EditIdeaBody, NewIdeaBody } from '@zesting/contract';
import { In } from 'typeorm';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { once } from '../../../platform/http/idempotency.js';
import { keepEmbargo } from '../../embargoes/index.js';
import { Idea } from '../entities/idea.entity.js';

export type IdeaFailure = {
  code:
    | 'access.refused'
    | 'pillar.unknown'
    | 'format.unknown'
    | 'channel.unknown'
    | 'idea.used'
    | 'idea.dropped'
    | 'idea.combined'
    | 'idea.other_client'
    | 'idea.unknown'
    | 'idea.has_client'
    | 'http.changed_meanwhile';
};

const FIELDS = [
  'title',
  'note',
  'link',
  'pillarId',
  'formatId',
  'channelId',
  'merit',
  'ease',
  'chance',
  'notBeforeOn',
  'freshUntilOn',
] as const;

/** Catches an idea, for a client or for none yet. @param key without it, what is sent twice is caught twice */
export function catchIdea(
  app: App,
  viewer: Viewer,
  body: NewIdeaBody,
  key?: string,
): Promise<Result<string, IdeaFailure | { code: 'idempotency.other_body' }>> {
  return app.write<string, IdeaFailure | { code: 'idempotency.other_body' }>((tx, now) => {
    const put = () => putIdea(tx, viewer, body, now);
    return key === undefined ? put() : once(tx, { key, caller: viewer.personId, operation: 'idea.catch', body, now }, put);
  });
}

/** The same in the caller's transaction. */
export async function putIdea(tx: Tx, viewer: Viewer, body: NewIdeaBody, now: InstantText): Promise<Result<string, IdeaFailure>> {
  const clientId = body.clientId ?? null;
  if (clientId !== null && !viewer.clientIds.includes(clientId)) return fail({ code: 'access.refused' });
  return keepIdea(tx, { name: viewer.name, authorId: viewer.personId, contactId: null }, body, now);
}

/** Who caught an idea: one of the agency, or a contact of the client. */
export type Catcher = { readonly name: string } & (
  { readonly authorId: string; readonly contactId: null } | { readonly authorId: null; readonly contactId: string }
);

/** Puts an idea on the shelf, in the caller's transaction. Whether who caught it may is for the caller to know. */
export async function keepIdea(tx: Tx, by: Catcher, body: NewIdeaBody, now: InstantText): Promise<Result<string, IdeaFailure>> {
  const clientId = body.clientId ?? null;
  const refused = await unknownOf(tx, clientId, body);
  if (refused) return fail(refused);
  const { title, note, link, pillarId, formatId, channelId, merit, ease, chance, notBeforeOn, freshUntilOn } = body;
  const id = await insertRow(tx, Idea, {
    clientId,
    title: title.trim(),
    note: note ?? '',
    link: link ?? null,
    pillarId: pillarId ?? null,
    formatId: formatId ?? null,
    channelId: channelId ?? null,
    merit: merit ?? null,
    ease: ease ?? null,
    chance: chance ?? null,
    notBeforeOn: notBeforeOn ?? null,
    freshUntilOn: freshUntilOn ?? null,
    state: 'open',
    pieceId: null,
    combinedInto: null,
    authorId: by.authorId,
    contactId: by.contactId,
    createdAt: now,
    version: 1,
  });
  await record(tx, by, { id, clientId }, 'idea.caught', { title: title.trim() }, now);
  return ok(id);
}

/** Changes an idea. One without a client may be given to one, for good. */
export function editIdea(
  app: App,
  viewer: Viewer,
  ideaId: string,
  body: EditIdeaBody,
  version: number,
): Promise<Result<null, IdeaFailure>> {
  return app.write<null, IdeaFailure>(async (tx, now) => {
    const idea = await lockIdea(tx, ideaId);
    if (idea.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (idea.state === 'used') return fail({ code: 'idea.used' });
    if (idea.state === 'combined') return fail({ code: 'idea.combined' });
    if (body.clientId !== undefined && body.clientId !== idea.clientId) {
      if (idea.clientId !== null) return fail({ code: 'idea.has_client' });
      if (!viewer.clientIds.includes(body.clientId)) return fail({ code: 'access.refused' });
    }
    const before = { ...idea };
    for (const field of FIELDS) if (body[field] !== undefined) Object.assign(idea, { [field]: body[field] });
    idea.title = idea.title.trim();
    idea.clientId = body.clientId ?? idea.clientId;
    const refused = await unknownOf(tx, idea.clientId, idea);
    if (refused) return fail(refused);
    const changes = changesBetween(shownOf(before), shownOf(idea));
    if (Object.keys(changes).length === 0) return ok(null);
    idea.version += 1;
    await tx.save(idea);
    // what is a part of it goes along
    if (idea.clientId !== before.clientId) await tx.update(Idea, { combinedInto: ideaId }, { clientId: idea.clientId });
    await record(tx, viewer, idea, 'idea.changed', changes, now);
    return ok(null);
  });
}

/** Drops an idea, or takes it up again; of one that was combined into another, takes it out of that. */
export function setIdeaState(app: App, viewer: Viewer, ideaId: string, state: 'open' | 'dropped'): Promise<Result<null, IdeaFailure>> {
  return app.write<null, IdeaFailure>(async (tx, now) => {
    const idea = await lockIdea(tx, ideaId);
    if (idea.state === 'used') return fail({ code: 'idea.used' });
    if (idea.state === state) return ok(null);
    await tx.update(Idea, ideaId, { state, combinedInto: null, version: idea.version + 1 });
    await record(tx, viewer, idea, state === 'open' ? 'idea.taken_up' : 'idea.dropped', { title: idea.title }, now);
    return ok(null);
  });
}

/**
 * Combines ideas into one: the others leave the shelf and stand in it, with what they say and what came with them, until somebody takes them out
 * again. What is for no client yet goes where that one is for.
 */
export function combineIdeas(app: App, viewer: Viewer, ideaId: string, otherIds: readonly string[]): Promise<Result<null, IdeaFailure>> {
  return app.write<null, IdeaFailure>(async (tx, now) => {
    const ids = [ideaId, ...otherIds];
    const ideas = await tx.find(Idea, { where: { id: In(ids) }, order: { id: 'ASC' }, lock: { mode: 'pessimistic_write' } });
    const idea = ideas.find(({ id }) => id === ideaId);
    const others = ideas.filter(({ id }) => id !== ideaId);
    // an idea that is out of reach is as good as none
    const isSeen = ({ clientId }: Idea) => clientId === null || viewer.clientIds.includes(clientId);
    if (!idea || otherIds.includes(ideaId) || others.length < otherIds.length || !others.every(isSeen))
      return fail({ code: 'idea.unknown' });
    for (const { state } of ideas) if (state !== 'open') return fail({ code: `idea.${state}` });
    const { clientId } = idea;
    if (others.some((other) => other.clientId !== null && other.clientId !== clientId)) return fail({ code: 'idea.other_client' });
    await tx.update(Idea, { combinedInto: In([...otherIds]) }, { combinedInto: ideaId, clientId });
    for (const other of others)
      await tx.update(Idea, other.id, { state: 'combined', combinedInto: ideaId, clientId, version: other.version + 1 });
    await tx.update(Idea, ideaId, { version: idea.version + 1 });
    await record(tx, viewer, idea, 'idea.combined', { title: idea.title, with: others.map(({ title }) => title).join(', ') }, now);
    return ok(null);
  });
}

/** An idea under lock; a missing one is a bug, since access was checked. */
export const lockIdea = (tx: Tx, id: string): Promise<Idea> =>
  tx.findOneOrFail(Idea, { where: { id }, lock: { mode: 'pessimistic_write' } });

/** Marks an idea as used: it leaves the shelf, and stays linked with its piece. The idea must be locked. */
export async function useIdea(tx: Tx, viewer: Viewer, idea: Idea, clientId: string, pieceId: string, now: InstantText): Promise<void> {
  await tx.update(Idea, idea.id, { clientId, state: 'used', pieceId, version: idea.version + 1 });
  if (idea.notBeforeOn !== null)
    await keepEmbargo(
      tx,
      viewer,
      { id: pieceId, clientId },
      { notBeforeOn: idea.notBeforeOn, notAfterOn: null, why: 'As its idea had it' },
      now,
    );
  await record(tx, viewer, { id: idea.id, clientId }, 'idea.used', { title: idea.title, pieceId }, now);
}

const shownOf = (idea: Idea) => Object.fromEntries([...FIELDS, 'clientId' as const].map((field) => [field, idea[field]]));

/** What an idea names and its client does not have. Without a client it can name a format alone. */
async function unknownOf(
  tx: Tx,
  clientId: string | null,
  { pillarId, formatId, channelId }: { pillarId?: string | null; formatId?: string | null; channelId?: string | null },
): Promise<IdeaFailure | null> {
  const [found] = await rowsOf<{ pillar: boolean; format: boolean; channel: boolean }>(
    tx,
    `select $1::uuid is null or exists (select 1 from pillars where id = $1 and client_id = $4) as pillar,
       $2::uuid is null or exists (select 1 from formats where id = $2) as format,
       $3::uuid is null or exists (select 1 from channels where id = $3 and client_id = $4) as channel`,
    [pillarId ?? null, formatId ?? null, channelId ?? null, clientId],
  );
  if (!found?.pillar) return { code: 'pillar.unknown' };
  if (!found.format) return { code: 'format.unknown' };
  return found.channel ? null : { code: 'channel.unknown' };
}

const record = (
  tx: Tx,
  { name: actor }: { readonly name: string },
  { id, clientId }: { readonly id: string; readonly clientId: string | null },
  verb: string,
  detail: Readonly<Record<string, unknown>>,
  at: InstantText,
): Promise<void> => recordActivity(tx, { clientId, thing: 'idea', thingId: id, verb, actor, detail, at });
