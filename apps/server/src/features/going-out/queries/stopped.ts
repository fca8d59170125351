/**
 * SQL: what is stopped that keeps what stands on a channel `h` of a client `c` from going out by itself: the channel's name, the client's,
 * `everything`, or null.
 */
export const STOPPED = `(select case when t.channel_id is not null then h.name when t.client_id is not null then c.name else 'everything' end from sending_stops t
  where (t.client_id is null or t.client_id = h.client_id) and (t.channel_id is null or t.channel_id = h.id)
  order by t.client_id nulls first, t.channel_id nulls first limit 1)`;
