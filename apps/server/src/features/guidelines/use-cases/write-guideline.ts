import type { GuidelineBody } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Guideline } from '../entities/guideline.entity.js';

type Refused = { code: 'guideline.of_agency' | 'format.unknown' | 'skill.unknown' | 'access.not_found' };

/** Writes down how something is made. */
export function addGuideline(app: App, viewer: Viewer, body: GuidelineBody): Promise<Result<string, Refused>> {
  return app.write<string, Refused>(async (tx, now) => {
    const refused = await refusedFor(tx, viewer, body, undefined);
    if (refused) return fail(refused);
    const guideline = await tx.save(tx.create(Guideline, { ...said(body), editedBy: viewer.personId, editedAt: now, archivedAt: null }));
    await noteGuideline(tx, viewer, guideline, 'guideline.added', now);
    return ok(guideline.id);
  });
}

type EditRefused = Refused | { code: 'http.changed_meanwhile' };

/** Changes a guideline. Makers see it as it is now, also for what has begun. */
export function editGuideline(
  app: App,
  viewer: Viewer,
  id: string,
  body: GuidelineBody,
  version: number,
): Promise<Result<null, EditRefused>> {
  return app.write<null, EditRefused>(async (tx, now) => {
    const guideline = await lockGuideline(tx, id);
    if (!mayWriteGuideline(viewer, guideline.clientId)) return fail({ code: 'guideline.of_agency' });
    const refused = await refusedFor(tx, viewer, body, guideline);
    if (refused) return fail(refused);
    if (guideline.version !== version) return fail({ code: 'http.changed_meanwhile' });
    Object.assign(guideline, said(body), { editedBy: viewer.personId, editedAt: now });
    await tx.save(guideline);
    await noteGuideline(tx, viewer, guideline, 'guideline.edited', now);
    return ok(null);
  });
}

/** Puts a guideline away, or takes it back. */
export function archiveGuideline(
  app: App,
  viewer: Viewer,
  id: string,
  archived: boolean,
): Promise<Result<null, { code: 'guideline.of_agency' }>> {
  return app.write<null, { code: 'guideline.of_agency' }>(async (tx, now) => {
    const guideline = await lockGuideline(tx, id);
    if (!mayWriteGuideline(viewer, guideline.clientId)) return fail({ code: 'guideline.of_agency' });
    if ((guideline.archivedAt !== null) === archived) return ok(null);
    guideline.archivedAt = archived ? now : null;
    await tx.save(guideline);
    await noteGuideline(tx, viewer, guideline, archived ? 'guideline.archived' : 'guideline.restored', now);
    return ok(null);
  });
}

export const lockGuideline = (tx: Tx, id: string): Promise<Guideline> =>
  tx.findOneOrFail(Guideline, { where: { id }, lock: { mode: 'pessimistic_write' } });

/** What holds for every client is a lead's word. */
export const mayWriteGuideline = (viewer: Viewer, clientId: string | null): boolean =>
  viewer.role === 'lead' || (clientId !== null && viewer.clientIds.includes(clientId));

const said = ({ title, text, clientId, formatId, channelKind, skill }: GuidelineBody) => ({
  title: title.trim(),
  text: text.trim(),
  clientId,
  formatId,
  channelKind,
  skill,
});

/** What was chosen before may stay, also where it is offered no more. */
async function refusedFor(tx: Tx, viewer: Viewer, body: GuidelineBody, before: Guideline | undefined): Promise<Refused | null> {
  const { clientId, formatId, skill } = body;
  if (clientId !== null && !viewer.clientIds.includes(clientId)) return { code: 'access.not_found' };
  if (!mayWriteGuideline(viewer, clientId)) return { code: 'guideline.of_agency' };
  if (formatId !== null && formatId !== before?.formatId) {
    const formats = await rowsOf(tx, 'select 1 from formats where id = $1 and archived_at is null', [formatId]);
    if (formats.length === 0) return { code: 'format.unknown' };
  }
  if (skill !== null && skill !== before?.skill) {
    const skills = await rowsOf(tx, 'select 1 from skills where name = $1 and archived_at is null', [skill]);
    if (skills.length === 0) return { code: 'skill.unknown' };
  }
  return null;
}

export async function noteGuideline(tx: Tx, viewer: Viewer, { clientId, title }: Guideline, verb: string, at: string): Promise<void> {
  const [agency] = clientId === null ? await rowsOf<{ id: string }>(tx, 'select id from agencies', []) : [];
  const thing = clientId === null ? 'agency' : 'client';
  await recordActivity(tx, { clientId, thing, thingId: clientId ?? agency?.id ?? '', verb, actor: viewer.name, detail: { title }, at });
}

/** Skills got other names, all at once, so that two that change places do not become one. */
export const renameSkillsOfGuidelines = (tx: Tx, from: readonly string[], to: readonly string[]): Promise<unknown> =>
  tx.query('update guidelines g set skill = n.new from unnest($1::text[], $2::text[]) n (old, new) where g.skill = n.old', [from, to]);
