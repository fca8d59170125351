import { addDays, getDay, RENEW_SOON_DAYS, type KeptFileKind } from '@zesting/core';
import type { KeptFileShape, KeptFilesShape, OfferedKeptFilesShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** What is looked for among kept files. */
export interface KeptAsked {
  /** all of them must stand in the title, in what can be seen, or in the file's name: whole or begun, whatever their accents */
  readonly words: string;
  readonly kind: KeptFileKind | null;
  /** only what is old or will be soon */
  readonly isToRenew: boolean;
  readonly isArchived: boolean;
  /** the viewer's */
  readonly todayOn: string;
}

/** So many are answered; how many more there are is said. */
const MOST = 120;
const MOST_OFFERED = 60;
/** The latest pieces that are named. */
const NAMED = 3;

/** SQL: the words of `$n`, each as it begins a word; `patterns` of `asked`. */
const asked = (n: number): string =>
  `asked as (select coalesce(array_agg('% ' || w || '%'), '{}') as patterns from regexp_split_to_table(plain_letters($${n}), '[^[:alnum:]]+') w where w <> '')`;
/** SQL: whether all of them stand in a file's own words. */
const SAYS = `(asked.patterns = '{}' or plain_letters(' ' || translate(k.title || ' ' || k.about || ' ' || a.name, '-_.,;:()/“”"''', '             ')) like all(asked.patterns))`;
const USES = 'cross join lateral (select count(*)::int as used, max(used_at) as last_at from kept_file_uses where kept_file_id = k.id) u';

/** Kept files of some clients: what is to be renewed first, by its day, then those that came last. */
export async function keptFilesOf(app: App, clientIds: readonly string[], wanted: KeptAsked): Promise<KeptFilesShape> {
  const soonOn = addDays(getDay(wanted.todayOn), RENEW_SOON_DAYS);
  const rows = await app.read<KeptFileShape & { all: number; toRenew: number }>(
    `with ${asked(4)},
     found as materialized (
       select k.id, k.since, case when k.renew_by <= $5::date then k.renew_by end as due from kept_files k join assets a on a.id = k.asset_id, asked
       where k.client_id = any($1) and (k.archived_at is not null) = $2 and ($3::text is null or k.kind = $3) and ${SAYS}),
     shown as (select * from found where not $6::boolean or due is not null order by due nulls last, since desc, id limit ${MOST})
     select k.id, k.client_id as "clientId", k.kind, k.title, k.about, k.renew_by as "renewBy", a.id as "assetId", a.name, a.mime,
       a.bytes::float8 as bytes, a.width, a.height, a.duration_ms as "durationMs", u.used, u.last_at as "lastAt", k.since, k.archived_at is not null as archived,
       k.version, coalesce((select jsonb_agg(jsonb_build_object('pieceId', s.piece_id, 'title', s.title) order by s.used_at desc) from (
         select x.piece_id, p.title, x.used_at from kept_file_uses x join pieces p on p.id = x.piece_id where x.kept_file_id = k.id
         order by x.used_at desc limit ${NAMED}) s), '[]') as pieces,
       (select count(*)::int from found) as all, (select count(due)::int from found) as "toRenew"
     from shown join kept_files k on k.id = shown.id join assets a on a.id = k.asset_id ${USES} order by shown.due nulls last, shown.since desc, k.id`,
    [clientIds, wanted.isArchived, wanted.kind, wanted.words, soonOn, wanted.isToRenew],
  );
  const { all = 0, toRenew = 0 } = rows[0] ?? {};
  const files = rows.map(({ all: _all, toRenew: _toRenew, ...file }) => file);
  return { files, hidden: (wanted.isToRenew ? toRenew : all) - files.length, toRenew };
}

/** The files of its client that are offered for a piece: those used most first. */
export async function keptFilesFor(app: App, pieceId: string, words: string): Promise<OfferedKeptFilesShape> {
  const files = await app.read<OfferedKeptFilesShape['files'][number]>(
    `with ${asked(2)} select k.id, k.kind, k.title, k.about, k.renew_by as "renewBy", a.name, a.mime, u.used
     from kept_files k join assets a on a.id = k.asset_id cross join asked ${USES}
     where k.client_id = (select client_id from pieces where id = $1) and k.archived_at is null and ${SAYS}
     order by u.used desc, k.since desc, k.id limit ${MOST_OFFERED + 1}`,
    [pieceId, words],
  );
  return { files: files.slice(0, MOST_OFFERED), hidden: Math.max(0, files.length - MOST_OFFERED) };
}
