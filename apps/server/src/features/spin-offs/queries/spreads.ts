import type { SpreadLineShape, SpreadOfferShape, SpreadShape, SpreadsShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import type { SpreadLine } from '../entities/spread.entity.js';

interface Row extends Omit<SpreadShape, 'lines'> {
  readonly lines: readonly SpreadLine[];
}

const SPREAD = `select s.id, s.client_id as "clientId", s.name, s.format_id as "formatId", f.name as "formatName", s.lines, s.used_since as "usedSince", s.version,
  (select count(*) from spin_offs o where o.spread_id = s.id) as made from spreads s left join formats f on f.id = s.format_id`;

/** A client's spreads, those in use first. */
export async function spreadsOf(app: App, clientId: string): Promise<SpreadsShape> {
  const rows = await app.read<Row>(
    `${SPREAD} where s.client_id = $1 and s.archived_at is null order by s.used_since is null, lower(s.name), s.id`,
    [clientId],
  );
  const archived = await app.read<{ id: string; name: string }>(
    'select id, name from spreads where client_id = $1 and archived_at is not null order by archived_at desc, id',
    [clientId],
  );
  return { spreads: await shaped(app, rows), archived };
}

/** Lines with the names of what they name. */
async function shaped(app: App, rows: readonly Row[]): Promise<SpreadShape[]> {
  const lines = rows.flatMap((row) => row.lines);
  const named = async (sql: string, ids: readonly (string | null)[]) =>
    new Map(
      (await app.read<{ id: string; name: string; more?: string }>(sql, [ids.filter((id) => id !== null)])).map((one) => [one.id, one]),
    );
  const [channels, routes, guidelines, people] = await Promise.all([
    named(
      'select id, name from channels where id = any($1)',
      lines.map((line) => line.channelId),
    ),
    named(
      'select r.id, r.name, f.name as more from routes r join formats f on f.id = r.format_id where r.id = any($1)',
      lines.map((line) => line.routeId),
    ),
    named(
      'select id, title as name from guidelines where id = any($1)',
      lines.map((line) => line.guidelineId),
    ),
    named(
      'select id, name from people where id = any($1)',
      lines.flatMap((line) => line.doers.map(({ personId }) => personId)),
    ),
  ]);
  const shape = (line: SpreadLine): SpreadLineShape => ({
    ...line,
    channelName: channels.get(line.channelId ?? '')?.name ?? null,
    routeName: routes.get(line.routeId)?.name ?? '',
    formatName: routes.get(line.routeId)?.more ?? '',
    guidelineTitle: guidelines.get(line.guidelineId ?? '')?.name ?? null,
    doers: line.doers.map((doer) => ({ ...doer, name: people.get(doer.personId)?.name ?? '' })),
  });
  return rows.map((row) => ({ ...row, lines: row.lines.map(shape) }));
}

/** The spreads that can be used for a piece: those for its format or any, in use first. */
export const offersFor = (app: App, pieceId: string): Promise<SpreadOfferShape[]> =>
  app.read<SpreadOfferShape>(
    `select s.id, s.name, s.used_since is not null as "isUsed", jsonb_array_length(s.lines) as outputs
     from spreads s join pieces p on p.id = $1 and p.client_id = s.client_id and (s.format_id is null or s.format_id = p.format_id)
     where s.archived_at is null order by s.used_since is null, s.format_id is null, lower(s.name), s.id`,
    [pieceId],
  );
