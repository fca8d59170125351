import { ALIKE, dayIn, sharedWords, similarity, type Day } from '@zesting/core';
import type { ClashShape, TwinShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { daysOff } from '../../planning/index.js';

/** So many candidates are looked at, so many told. */
const CANDIDATES = 40;
const TOLD = 5;

export interface Sought {
  readonly clientId: string;
  readonly title: string;
  /** the request that they are sought for; null where it is not sent yet */
  readonly requestId: string | null;
  /** the client's, whose days are told */
  readonly zone: string;
}

/** What has a title alike, of the same client: the database finds candidates by the trigram index, core scores and explains. */
export async function twinsOf(app: App, { clientId, title, requestId, zone }: Sought): Promise<TwinShape[]> {
  const rows = await app.read<Omit<TwinShape, 'on' | 'likeness' | 'sharedWords'> & { on: string | null; at: string }>(
    `(select 'request' as kind, r.id, r.number, r.title, r.state, null as "formatName", null as "on", r.received_at as at
        from requests r where r.client_id = $1 and r.id is distinct from $3 and r.title_plain % plain_letters($2) and r.state not in ('merged', 'withdrawn')
          and not exists (select 1 from piece_requests b where b.request_id = r.id)
        order by similarity(r.title_plain, plain_letters($2)) desc limit ${CANDIDATES})
     union all
     (select 'piece', p.id, p.number, p.title, p.stage, f.name, p.aim_on::text, p.created_at
        from pieces p join formats f on f.id = p.format_id where p.client_id = $1 and p.title_plain % plain_letters($2)
          and not exists (select 1 from piece_requests b where b.piece_id = p.id and b.request_id = $3)
        order by similarity(p.title_plain, plain_letters($2)) desc limit ${CANDIDATES})`,
    [clientId, title, requestId],
  );
  return rows
    .map(({ on, at, ...row }) => ({
      ...row,
      on: on ?? dayIn(at, zone),
      likeness: similarity(title, row.title),
      sharedWords: sharedWords(title, row.title),
    }))
    .filter(({ likeness }) => likeness >= ALIKE)
    .sort((a, b) => b.likeness - a.likeness || (a.on < b.on ? 1 : -1))
    .slice(0, TOLD);
}

/** What stands on a day: the same channel's placements, blackouts and production days, the client's days off. */
export async function clashesOn(app: App, clientId: string, channelIds: readonly string[] | undefined, on: Day): Promise<ClashShape[]> {
  const placements = await app.read<ClashShape>(
    `select 'placement' as kind, c.name || ': ' || p.title as name, p.id as "pieceId" from placements l join pieces p on p.id = l.piece_id
       join channels c on c.id = l.channel_id
     where l.on_day = $2 and l.state <> 'cancelled' and p.client_id = $1 and ($3::uuid[] is null or l.channel_id = any($3)) order by c.name, p.title limit 10`,
    [clientId, on, channelIds?.length ? channelIds : null],
  );
  const { marked, client } = await daysOff(app, { clientId, personId: null }, on, on);
  return [
    ...marked.map(({ kind, name }) => ({ kind, name, pieceId: null })),
    ...(client?.days ?? []).map(({ reason }) => ({ kind: 'day_off' as const, name: reason, pieceId: null })),
    ...placements,
  ];
}

/** Days around a launch that belong to it. */
const NEAR_LAUNCH_DAYS = 7;

export const isLaunchNear = async (app: App, clientId: string, on: Day): Promise<boolean> =>
  (
    await app.read(
      "select 1 from markers where client_id = $1 and kind = 'launch' and $2::date between start_on - $3::int and end_on + $3::int limit 1",
      [clientId, on, NEAR_LAUNCH_DAYS],
    )
  ).length > 0;
