import type { TagSetBody } from '@zesting/contract';
import { fail, isTag, ok, withTagSet, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { TagSet } from '../entities/tag-set.entity.js';
import { isPillar } from './is-pillar.js';

type Refused = { code: 'pillar.unknown' | 'tag_set.tag_broken' };

/** Keeps tags under a name. */
export function addTagSet(app: App, viewer: Viewer, clientId: string, body: TagSetBody): Promise<Result<string, Refused>> {
  return app.write<string, Refused>(async (tx, now) => {
    const refused = await refusedFor(tx, clientId, body, null);
    if (refused) return fail(refused);
    const set = await tx.save(tx.create(TagSet, { ...said(body), clientId, madeAt: now, archivedAt: null }));
    await note(tx, viewer, set, 'tag_set.added', now);
    return ok(set.id);
  });
}

/** Changes a set; pieces that carry its tags keep theirs. */
export function editTagSet(
  app: App,
  viewer: Viewer,
  id: string,
  body: TagSetBody,
  version: number,
): Promise<Result<null, Refused | { code: 'http.changed_meanwhile' }>> {
  return app.write<null, Refused | { code: 'http.changed_meanwhile' }>(async (tx, now) => {
    const set = await lock(tx, id);
    if (set.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const refused = await refusedFor(tx, set.clientId, body, set.pillarId);
    if (refused) return fail(refused);
    Object.assign(set, said(body));
    await tx.save(set);
    await note(tx, viewer, set, 'tag_set.edited', now);
    return ok(null);
  });
}

/** Puts a set away, or takes it back. */
export function archiveTagSet(app: App, viewer: Viewer, id: string, archived: boolean): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const set = await lock(tx, id);
    if ((set.archivedAt !== null) === archived) return ok(null);
    set.archivedAt = archived ? now : null;
    await tx.save(set);
    await note(tx, viewer, set, archived ? 'tag_set.archived' : 'tag_set.restored', now);
    return ok(null);
  });
}

const lock = (tx: Tx, id: string): Promise<TagSet> => tx.findOneOrFail(TagSet, { where: { id }, lock: { mode: 'pessimistic_write' } });

/** Each tag once, in the order in which it was said. */
const said = ({ name, tags, pillarId, weekday }: TagSetBody) => ({ name: name.trim(), tags: withTagSet([], { tags }), pillarId, weekday });

async function refusedFor(tx: Tx, clientId: string, { tags, pillarId }: TagSetBody, before: string | null): Promise<Refused | null> {
  if (!tags.every(isTag)) return { code: 'tag_set.tag_broken' };
  return (await isPillar(tx, clientId, pillarId, before)) ? null : { code: 'pillar.unknown' };
}

const note = (tx: Tx, viewer: Viewer, { clientId, name, tags }: TagSet, verb: string, at: string): Promise<void> =>
  recordActivity(tx, { clientId, thing: 'client', thingId: clientId, verb, actor: viewer.name, detail: { name, tags }, at });
