/** The columns of a placement `l` with its channel `h`, its piece `p` and the version `v` that it went out with, as a `PlacementShape` takes them. */
export const PLACEMENT_COLUMNS = `l.id, l.piece_id as "pieceId", l.client_id as "clientId", l.channel_id as "channelId", h.name as "channelName",
  l.on_day as on, l.at_time as at, l.zone, l.state, l.out_at as "outAt", l.out_address as "outAddress", v.number as "outNumber",
  case when l.out_digests is null then false
    else l.out_digests <> array[p.digests ->> 'shared', coalesce(p.digests -> 'channels' ->> l.channel_id::text, '')] end as "changedSince", l.version`;

/** SQL: how a placement `l` stands for those outside the agency: what is on its way is scheduled. */
export const STATE_OUTSIDE = "case when l.state in ('sending', 'unsure') then 'scheduled' else l.state end";
