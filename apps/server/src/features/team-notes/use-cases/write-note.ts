import type { TeamNoteBody } from '@zesting/contract';
import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tell, untell } from '../../notices/index.js';
import { TeamNote } from '../entities/team-note.entity.js';
import { teamOf } from '../queries/team-notes.js';

/** So much of a note is told in a round-up. */
const TOLD_CHARACTERS = 200;

const noteKey = (id: string): string => `team-note:${id}`;

type AddFailure = { code: 'file.unknown' | 'person.unknown' };

/** What a note stands on. */
export type NotedThing = { readonly pieceId: string } | { readonly ideaId: string };

/** Adds to the brief of a piece, or comments on it or on an idea. Whoever is mentioned hears of it in their round-up. */
export function addNote(app: App, viewer: Viewer, of: NotedThing, body: TeamNoteBody): Promise<Result<string, AddFailure>> {
  return app.write<string, AddFailure>(async (tx, now) => {
    const { clientId, pieceId, ideaId, title } = await thingOf(tx, of);
    const files = await rowsOf(tx, 'select 1 from assets where (piece_id = $1 or idea_id = $2) and id = any($3)', [
      pieceId,
      ideaId,
      body.assetIds,
    ]);
    if (files.length < body.assetIds.length) return fail({ code: 'file.unknown' });
    const team = new Set((await teamOf(tx, of)).map((mate) => mate.personId));
    if (body.mentionIds.some((id) => !team.has(id))) return fail({ code: 'person.unknown' });
    const isBrief = ideaId === null && body.kind === 'brief';
    const note = await tx.save(
      tx.create(TeamNote, {
        clientId: ideaId === null ? clientId : null,
        pieceId,
        ideaId,
        authorId: viewer.personId,
        kind: isBrief ? 'brief' : 'comment',
        text: body.text.trim(),
        assetIds: body.assetIds,
        mentionIds: body.mentionIds.filter((id) => id !== viewer.personId),
        createdAt: now,
        editedAt: null,
        removedAt: null,
      }),
    );
    await recordNote(tx, viewer, note, isBrief ? 'brief.added_to' : ideaId === null ? 'piece.commented' : 'idea.commented', now);
    const told = note.text.length > TOLD_CHARACTERS ? `${note.text.slice(0, TOLD_CHARACTERS).trimEnd()}…` : note.text;
    for (const personId of note.mentionIds)
      await tell(app, tx, personId, {
        clientId,
        heading: `${viewer.name} on “${title}”`,
        text: `${viewer.name} ${isBrief ? 'added to the brief' : 'wrote'}: “${told}”`,
        path: ideaId === null ? `/pieces/${pieceId}#${isBrief ? 'brief' : 'talk'}` : `/plan/ideas?idea=${ideaId}`,
        key: noteKey(note.id),
      });
    return ok(note.id);
  });
}

interface Noted {
  readonly clientId: string | null;
  readonly pieceId: string | null;
  readonly ideaId: string | null;
  readonly title: string;
}

async function thingOf(tx: Tx, of: NotedThing): Promise<Noted> {
  const [thing] = await rowsOf<Noted>(
    tx,
    'pieceId' in of
      ? 'select client_id as "clientId", id as "pieceId", null::uuid as "ideaId", title from pieces where id = $1'
      : 'select client_id as "clientId", null::uuid as "pieceId", id as "ideaId", title from ideas where id = $1',
    ['pieceId' in of ? of.pieceId : of.ideaId],
  );
  if (!thing) throw new Error('what is written on went away');
  return thing;
}

type ChangeFailure = { code: 'http.changed_meanwhile' | 'note.removed' | 'note.of_another' };

/** Changes the text of one's own note. */
export function editNote(app: App, viewer: Viewer, noteId: string, text: string, version: number): Promise<Result<null, ChangeFailure>> {
  return app.write<null, ChangeFailure>(async (tx, now) => {
    const note = await lockNote(tx, noteId);
    if (note.removedAt !== null) return fail({ code: 'note.removed' });
    if (note.authorId !== viewer.personId) return fail({ code: 'note.of_another' });
    if (note.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const detail = { text: { from: note.text, to: text.trim() } };
    Object.assign(note, { text: text.trim(), editedAt: now });
    await tx.save(note);
    await recordNote(tx, viewer, note, 'note.edited', now, detail);
    return ok(null);
  });
}

/** Takes a note back: one's own, or as a manager anybody's. Who has not heard of it yet hears nothing. Its text stays in the record. */
export function removeNote(app: App, viewer: Viewer, noteId: string): Promise<Result<null, ChangeFailure>> {
  return app.write<null, ChangeFailure>(async (tx, now) => {
    const note = await lockNote(tx, noteId);
    if (note.removedAt !== null) return ok(null);
    if (note.authorId !== viewer.personId && viewer.role !== 'lead' && viewer.role !== 'manager') return fail({ code: 'note.of_another' });
    note.removedAt = now;
    await tx.save(note);
    await untell(tx, noteKey(noteId));
    await recordNote(tx, viewer, note, 'note.removed', now, { text: { from: note.text, to: null } });
    return ok(null);
  });
}

const lockNote = (tx: Tx, id: string): Promise<TeamNote> =>
  tx.findOneOrFail(TeamNote, { where: { id }, lock: { mode: 'pessimistic_write' } });

async function recordNote(
  tx: Tx,
  viewer: Viewer,
  note: TeamNote,
  verb: string,
  at: InstantText,
  detail: Readonly<Record<string, unknown>> = {},
): Promise<void> {
  const { pieceId } = note;
  const ideaId = note.ideaId ?? ''; // it stands on one of the two
  const { clientId } = await thingOf(tx, pieceId === null ? { ideaId } : { pieceId });
  const thing = pieceId === null ? 'idea' : 'piece';
  await recordActivity(tx, { clientId, thing, thingId: pieceId ?? ideaId, verb, actor: viewer.name, detail, at });
}
