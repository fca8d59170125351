import type { OfferedPhrasesShape, PhraseShape, PhrasesShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** A client's phrases of that condition over `f`, in that order. */
const phrasesWhere = (app: App, condition: string, order: string, values: readonly unknown[]): Promise<PhraseShape[]> =>
  app.read<PhraseShape>(
    `select f.id, f.kind, f.text, f.pillar_id as "pillarId", p.name as "pillarName", u.used, u.last_at as "lastAt", f.version
     from phrases f left join pillars p on p.id = f.pillar_id
       cross join lateral (select count(*)::int as used, max(used_at) as last_at from phrase_uses where phrase_id = f.id) u
     where ${condition} order by ${order}, f.id`,
    [...values],
  );

/** A client's phrases by kind, those that were used most first. */
export async function phrasesOf(app: App, clientId: string): Promise<PhrasesShape> {
  const [phrases, archived] = await Promise.all(
    ['is null', 'is not null'].map((is) =>
      phrasesWhere(app, `f.client_id = $1 and f.archived_at ${is}`, 'f.kind, u.used desc, f.made_at', [clientId]),
    ),
  );
  return { phrases: phrases ?? [], archived: archived ?? [] };
}

/** The phrases of a piece's client that are for its pillar or for any, the ones for its pillar first, of these those that rested longest. */
export async function phrasesFor(app: App, pieceId: string): Promise<OfferedPhrasesShape> {
  const phrases = await phrasesWhere(
    app,
    `f.archived_at is null and f.client_id = (select client_id from pieces where id = $1)
       and (f.pillar_id is null or f.pillar_id = (select pillar_id from pieces where id = $1))`,
    'f.kind, (f.pillar_id is null), u.last_at nulls first, f.made_at',
    [pieceId],
  );
  return { phrases };
}
