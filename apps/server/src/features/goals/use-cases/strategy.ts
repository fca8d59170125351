import { fail, ok, type Result } from '@zesting/core';
import type { StrategyNoteBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, type Tx } from '../../../platform/database/transaction.js';
import { StrategyNote } from '../entities/strategy-note.entity.js';

export type StrategyFailure = { code: 'http.changed_meanwhile' };

export function addStrategyNote(app: App, viewer: Viewer, clientId: string, body: StrategyNoteBody): Promise<Result<string>> {
  return app.write<string, never>(async (tx, now) => {
    const { kind } = body;
    const told = { kind, text: body.text.trim(), link: body.link ?? null };
    const id = await insertRow(tx, StrategyNote, {
      ...told,
      clientId,
      authorId: viewer.personId,
      createdAt: now,
      archivedAt: null,
      version: 1,
    });
    await noteOfClient(tx, viewer, clientId, 'strategy.noted', told, now);
    return ok(id);
  });
}

export function changeStrategyNote(
  app: App,
  viewer: Viewer,
  noteId: string,
  body: StrategyNoteBody,
  version: number,
): Promise<Result<null, StrategyFailure>> {
  return app.write<null, StrategyFailure>(async (tx, now) => {
    const there = await lockNote(tx, noteId);
    if (there.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const told = { kind: body.kind, text: body.text.trim(), link: body.link ?? null };
    await tx.update(StrategyNote, noteId, { ...told, version: version + 1 });
    await noteOfClient(tx, viewer, there.clientId, 'strategy.changed', { from: there.text, ...told }, now);
    return ok(null);
  });
}

/** Takes a note off, or puts it back. */
export function setStrategyNoteAway(app: App, viewer: Viewer, noteId: string, isAway: boolean): Promise<Result<null>> {
  return app.write<null, never>(async (tx, now) => {
    const there = await lockNote(tx, noteId);
    if ((there.archivedAt !== null) === isAway) return ok(null);
    await tx.update(StrategyNote, noteId, { archivedAt: isAway ? now : null, version: there.version + 1 });
    await noteOfClient(tx, viewer, there.clientId, isAway ? 'strategy.taken_off' : 'strategy.put_back', { text: there.text }, now);
    return ok(null);
  });
}

const lockNote = (tx: Tx, id: string): Promise<StrategyNote> =>
  tx.findOneOrFail(StrategyNote, { where: { id }, lock: { mode: 'pessimistic_write' } });
