import type { PhraseBody } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Phrase, PhraseUse } from '../entities/phrase.entity.js';
import { isPillar } from './is-pillar.js';

type Refused = { code: 'pillar.unknown' };

/** Keeps a phrase. */
export function addPhrase(app: App, viewer: Viewer, clientId: string, body: PhraseBody): Promise<Result<string, Refused>> {
  return app.write<string, Refused>(async (tx, now) => {
    if (!(await isPillar(tx, clientId, body.pillarId, null))) return fail({ code: 'pillar.unknown' });
    const phrase = await tx.save(tx.create(Phrase, { ...said(body), clientId, madeAt: now, archivedAt: null }));
    await note(tx, viewer, phrase, 'phrase.added', now);
    return ok(phrase.id);
  });
}

/** Changes a phrase; what was written with it stays. */
export function editPhrase(
  app: App,
  viewer: Viewer,
  id: string,
  body: PhraseBody,
  version: number,
): Promise<Result<null, Refused | { code: 'http.changed_meanwhile' }>> {
  return app.write<null, Refused | { code: 'http.changed_meanwhile' }>(async (tx, now) => {
    const phrase = await lock(tx, id);
    if (phrase.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (!(await isPillar(tx, phrase.clientId, body.pillarId, phrase.pillarId))) return fail({ code: 'pillar.unknown' });
    await tx.save(Object.assign(phrase, said(body)));
    await note(tx, viewer, phrase, 'phrase.edited', now);
    return ok(null);
  });
}

/** Puts a phrase away, or takes it back. */
export function archivePhrase(app: App, viewer: Viewer, id: string, archived: boolean): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const phrase = await lock(tx, id);
    if ((phrase.archivedAt !== null) === archived) return ok(null);
    phrase.archivedAt = archived ? now : null;
    await tx.save(phrase);
    await note(tx, viewer, phrase, archived ? 'phrase.archived' : 'phrase.restored', now);
    return ok(null);
  });
}

/** Writes down that a phrase was put into a piece of the same client. */
export function usePhrase(app: App, pieceId: string, phraseId: string): Promise<Result<null, { code: 'phrase.unknown' }>> {
  return app.write<null, { code: 'phrase.unknown' }>(async (tx, now) => {
    const known = await rowsOf(tx, 'select 1 from phrases f join pieces p on p.client_id = f.client_id where f.id = $1 and p.id = $2', [
      phraseId,
      pieceId,
    ]);
    if (known.length === 0) return fail({ code: 'phrase.unknown' });
    await tx.upsert(PhraseUse, { phraseId, pieceId, usedAt: now }, ['phraseId', 'pieceId']);
    return ok(null);
  });
}

const lock = (tx: Tx, id: string): Promise<Phrase> => tx.findOneOrFail(Phrase, { where: { id }, lock: { mode: 'pessimistic_write' } });

const said = ({ kind, text, pillarId }: PhraseBody) => ({ kind, text: text.trim(), pillarId });

const note = (tx: Tx, viewer: Viewer, { clientId, kind, text }: Phrase, verb: string, at: string): Promise<void> =>
  recordActivity(tx, {
    clientId,
    thing: 'client',
    thingId: clientId,
    verb,
    actor: viewer.name,
    detail: { kind, text: text.slice(0, 200) },
    at,
  });
