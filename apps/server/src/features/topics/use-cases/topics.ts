import { fail, ok, type Result } from '@zesting/core';
import type { EditTopicBody, NewTopicsBody, SubjectBody, TopicIdeaBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { putIdea } from '../../plan/index.js';
import { StoredTopic } from '../entities/topic.entity.js';
import { TopicUse } from '../entities/topic-use.entity.js';
import { Treatments } from '../entities/treatments.entity.js';

export type TopicFailure = {
  code:
    | 'pillar.unknown'
    | 'topic.unknown'
    | 'topic.too_deep'
    | 'topic.name_taken'
    | 'topic.too_many'
    | 'treatment.unknown'
    | 'idea.unknown'
    | 'piece.unknown'
    | 'http.changed_meanwhile';
};

const MOST_TOPICS = 2_000;

/** Adds branches to a pillar, or to a topic of it, after those that are there. */
export function addTopics(app: App, viewer: Viewer, clientId: string, body: NewTopicsBody): Promise<Result<string[], TopicFailure>> {
  return app.write<string[], TopicFailure>(async (tx, now) => {
    await lockTopics(tx, clientId);
    const { pillarId, parentId } = body;
    const [pillar] = await rowsOf<{ name: string }>(
      tx,
      'select name from pillars where id = $1 and client_id = $2 and archived_at is null',
      [pillarId, clientId],
    );
    if (!pillar) return fail({ code: 'pillar.unknown' });
    const parent = parentId === null ? null : await tx.findOneBy(StoredTopic, { id: parentId, clientId, pillarId });
    if (parentId !== null && (!parent || parent.archivedAt !== null)) return fail({ code: 'topic.unknown' });
    if (parent && parent.parentId !== null) return fail({ code: 'topic.too_deep' });
    const names = body.names.map((name) => name.trim());
    if (new Set(names.map((name) => name.toLowerCase())).size < names.length) return fail({ code: 'topic.name_taken' });
    const [there] = await rowsOf<{ all: number; last: number; taken: boolean }>(
      tx,
      `select count(*) as all, coalesce(max(position) filter (where pillar_id = $2 and parent_id is not distinct from $3), -1) as last,
         coalesce(bool_or(pillar_id = $2 and parent_id is not distinct from $3 and plain_letters(name) in (select plain_letters(n) from unnest($4::text[]) n)), false) as taken
       from topics where client_id = $1 and archived_at is null`,
      [clientId, pillarId, parentId, names],
    );
    if (there?.taken) return fail({ code: 'topic.name_taken' });
    if ((there?.all ?? 0) + names.length > MOST_TOPICS) return fail({ code: 'topic.too_many' });
    const ids: string[] = [];
    for (const [index, name] of names.entries())
      ids.push(
        await insertRow(tx, StoredTopic, {
          clientId,
          pillarId,
          parentId,
          name,
          position: (there?.last ?? -1) + 1 + index,
          months: [],
          archivedAt: null,
          version: 1,
        }),
      );
    await noteOfClient(tx, viewer, clientId, 'topic.added', { names, below: parent?.name ?? pillar.name }, now);
    return ok(ids);
  });
}

/** Names a branch anew, or puts it into months. */
export function editTopic(
  app: App,
  viewer: Viewer,
  topicId: string,
  body: EditTopicBody,
  version: number,
): Promise<Result<null, TopicFailure>> {
  return app.write<null, TopicFailure>(async (tx, now) => {
    const topic = await lockTopic(tx, topicId);
    if (topic.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const next = { name: body.name?.trim() ?? topic.name, months: [...(body.months ?? topic.months)].sort() };
    const changes = changesBetween({ name: topic.name, months: topic.months }, next);
    if (Object.keys(changes).length === 0) return ok(null);
    if (await isTaken(tx, { ...topic, ...next })) return fail({ code: 'topic.name_taken' });
    await tx.update(StoredTopic, topicId, { ...next, version: version + 1 });
    await noteOfClient(tx, viewer, topic.clientId, 'topic.changed', { topic: topic.name, ...changes }, now);
    return ok(null);
  });
}

/** Archives a branch with all below it, or takes it back; a subtopic comes back with its topic. */
export function setTopicAway(app: App, viewer: Viewer, topicId: string, isAway: boolean): Promise<Result<null, TopicFailure>> {
  return app.write<null, TopicFailure>(async (tx, now) => {
    const topic = await lockTopic(tx, topicId);
    if ((topic.archivedAt !== null) === isAway) return ok(null);
    const touched = isAway
      ? [topic, ...(await tx.findBy(StoredTopic, { parentId: topicId }))].filter(({ archivedAt }) => archivedAt === null)
      : [
          topic,
          ...(topic.parentId === null ? await tx.findBy(StoredTopic, { parentId: topicId, archivedAt: topic.archivedAt ?? '' }) : []),
        ];
    if (!isAway) {
      const parent = topic.parentId === null ? null : await tx.findOneBy(StoredTopic, { id: topic.parentId });
      if (parent && parent.archivedAt !== null) touched.unshift(parent);
      for (const one of touched) if (await isTaken(tx, one)) return fail({ code: 'topic.name_taken' });
    }
    for (const { id, version } of touched) await tx.update(StoredTopic, id, { archivedAt: isAway ? now : null, version: version + 1 });
    await noteOfClient(tx, viewer, topic.clientId, isAway ? 'topic.archived' : 'topic.restored', { topic: topic.name }, now);
    return ok(null);
  });
}

/** Says in which ways a client's subjects can be treated. What was treated in a way that is gone stays so. */
export function setTreatments(
  app: App,
  viewer: Viewer,
  clientId: string,
  names: readonly string[],
  version: number,
): Promise<Result<null, TopicFailure>> {
  return app.write<null, TopicFailure>(async (tx, now) => {
    const there = await lockTopics(tx, clientId);
    if (there.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const next = names.map((name) => name.trim());
    await tx.update(Treatments, clientId, { names: next, version: version + 1 });
    await noteOfClient(tx, viewer, clientId, 'topic.treatments_set', { names: next }, now);
    return ok(null);
  });
}

/** Catches an idea for a cell of the matrix. @returns the idea's id */
export function catchTopicIdea(app: App, viewer: Viewer, topicId: string, body: TopicIdeaBody): Promise<Result<string, TopicFailure>> {
  return app.write<string, TopicFailure>(async (tx, now) => {
    const topic = await lockTopic(tx, topicId);
    if (topic.archivedAt !== null) return fail({ code: 'topic.unknown' });
    const treatment = await treatmentOf(tx, topic.clientId, body.treatment);
    if (treatment === undefined) return fail({ code: 'treatment.unknown' });
    const title = body.title?.trim() ?? (treatment === '' ? topic.name : `${topic.name}: ${treatment}`);
    const idea = await putIdea(tx, viewer, { title, clientId: topic.clientId, pillarId: topic.pillarId }, now);
    if (!idea.ok) return fail({ code: 'pillar.unknown' });
    await tx.insert(TopicUse, { clientId: topic.clientId, topicId, treatment, ideaId: idea.value, pieceId: null });
    return ok(idea.value);
  });
}

/** Says what a piece or an idea of a client is about; null: nothing in particular. */
export function setSubject(
  app: App,
  viewer: Viewer,
  of: { readonly ideaId: string } | { readonly pieceId: string },
  { topicId, treatment }: SubjectBody,
): Promise<Result<null, TopicFailure>> {
  return app.write<null, TopicFailure>(async (tx, now) => {
    const isIdea = 'ideaId' in of;
    const [thing] = await rowsOf<{ client_id: string | null; title: string }>(
      tx,
      isIdea
        ? 'select client_id, title from ideas where id = $1 for update'
        : 'select client_id, title from pieces where id = $1 for update',
      [isIdea ? of.ideaId : of.pieceId],
    );
    const clientId = thing?.client_id ?? null;
    if (!thing || clientId === null) return fail({ code: isIdea ? 'idea.unknown' : 'piece.unknown' });
    await lockTopics(tx, clientId);
    const topic = topicId === null ? null : await tx.findOneBy(StoredTopic, { id: topicId, clientId });
    if (topicId !== null && (!topic || topic.archivedAt !== null)) return fail({ code: 'topic.unknown' });
    const way = topic ? await treatmentOf(tx, clientId, treatment ?? null) : '';
    if (way === undefined) return fail({ code: 'treatment.unknown' });
    await tx.delete(TopicUse, of);
    if (topic) await tx.insert(TopicUse, { clientId, topicId: topic.id, treatment: way, ideaId: null, pieceId: null, ...of });
    await noteOfClient(
      tx,
      viewer,
      clientId,
      'topic.subject_set',
      { of: thing.title, topic: topic?.name ?? null, treatment: way || null },
      now,
    );
    return ok(null);
  });
}

/** One of the client's treatments as it is written there; empty for none in particular, undefined where it is none of them. */
async function treatmentOf(tx: Tx, clientId: string, treatment: string | null): Promise<string | undefined> {
  if (treatment === null || treatment.trim() === '') return '';
  const { names } = await lockTopics(tx, clientId);
  return names.find((name) => name.toLowerCase() === treatment.trim().toLowerCase());
}

/** The row that whoever changes a client's topics locks; made where there is none yet. */
async function lockTopics(tx: Tx, clientId: string): Promise<Treatments> {
  await tx.query('insert into treatments (client_id) values ($1) on conflict do nothing', [clientId]);
  return tx.findOneOrFail(Treatments, { where: { clientId }, lock: { mode: 'pessimistic_write' } });
}

async function lockTopic(tx: Tx, topicId: string): Promise<StoredTopic> {
  const { clientId } = await tx.findOneByOrFail(StoredTopic, { id: topicId });
  await lockTopics(tx, clientId);
  return tx.findOneByOrFail(StoredTopic, { id: topicId });
}

/** Whether another branch beside a topic has its name. */
async function isTaken(tx: Tx, { id, pillarId, parentId, name }: StoredTopic): Promise<boolean> {
  const rows = await rowsOf(
    tx,
    `select 1 from topics where pillar_id = $1 and parent_id is not distinct from $2 and archived_at is null and id <> $3
     and plain_letters(name) = plain_letters($4)`,
    [pillarId, parentId, id, name],
  );
  return rows.length > 0;
}
