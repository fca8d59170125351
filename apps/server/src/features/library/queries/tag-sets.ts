import { addDays, dayIn, getDay, inOrderOfFit } from '@zesting/core';
import type { OfferedTagSetShape, OfferedTagSetsShape, TagSetsShape, TagSetShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** Uses are counted over so many days. */
const USED_DAYS = 365;

/** A client's tag sets by their names. A use is a dated placement that carries all of a set's tags, whoever put them there. */
export async function tagSetsOf(app: App, clientId: string): Promise<TagSetsShape> {
  const [client] = await app.read<{ zone: string }>('select zone from clients where id = $1', [clientId]);
  if (!client) throw new Error('the client went away');
  const today = dayIn(app.clock.now(), client.zone);
  const tagSets = await app.read<TagSetShape>(
    `with placed as materialized (
       select l.on_day, array(select lower(jsonb_array_elements_text(p.content -> 'channels' -> (l.channel_id::text) -> 'tags'))) as tags
       from placements l join pieces p on p.id = l.piece_id where l.client_id = $1 and l.on_day > $2 and not l.cancelled and not p.shelved)
     select s.id, s.name, s.tags, s.pillar_id as "pillarId", p.name as "pillarName", s.weekday, s.version, u.used, u.last_on as "lastOn"
     from tag_sets s left join pillars p on p.id = s.pillar_id
     cross join lateral (select count(*)::int as used, max(on_day) as last_on from placed where placed.tags @> array(select lower(unnest(s.tags)))) u
     where s.client_id = $1 and s.archived_at is null order by s.name, s.id`,
    [clientId, addDays(today, -USED_DAYS)],
  );
  const archived = await app.read<TagSetsShape['archived'][number]>(
    'select id, name from tag_sets where client_id = $1 and archived_at is not null order by name, id',
    [clientId],
  );
  return { tagSets, archived };
}

/** The sets of a piece's client, in the order in which they are offered for it: by its pillar and the first day on which it goes out. */
export async function tagSetsFor(app: App, pieceId: string): Promise<OfferedTagSetsShape> {
  const [piece] = await app.read<{ clientId: string; pillarId: string | null; aimOn: string | null }>(
    'select client_id as "clientId", pillar_id as "pillarId", aim_on as "aimOn" from pieces where id = $1',
    [pieceId],
  );
  if (!piece) throw new Error('the piece went away');
  const sets = await app.read<OfferedTagSetShape>(
    'select id, name, tags, pillar_id as "pillarId", weekday from tag_sets where client_id = $1 and archived_at is null order by name, id',
    [piece.clientId],
  );
  return { tagSets: inOrderOfFit(sets, { pillarId: piece.pillarId, on: piece.aimOn === null ? null : getDay(piece.aimOn) }) };
}
