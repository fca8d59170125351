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

/** SQL: whether the words of `$n` stand in a file's own, each as the beginning of a word at least. */
const says = (n: number): string =>
  `(select coalesce(bool_and(plain_letters(' ' || translate(k.title || ' ' || k.about || ' ' || a.name, '-_.,;:()/“”"''', '             ')) like '% ' || w || '%'), true)
    from regexp_split_to_table(plain_letters($${n}), '[^[:alnum:]]+') w where w <> '')`;

const COLUMNS = `k.id, k.client_id as "clientId", k.kind, k.title, k.about, k.renew_by as "renewBy", a.id as "assetId", a.name, a.mime,
  a.bytes::float8 as bytes, a.width, a.height, a.duration_ms as "durationMs", u.used, u.last_at as "lastAt", k.since, k.archived_at is not null as archived, k.version`;
const USES = `cross join lateral (select count(*)::int as used, max(used_at) as last_at from kept_file_uses where kept_file_id = k.id) u`;

/** Kept files of some clients: what is to be renewed first, by its day, then those that came last. */
export async function keptFilesOf(app: App, clientIds: readonly string[], asked: KeptAsked): Promise<KeptFilesShape> {
  const soonOn = addDays(getDay(asked.todayOn), RENEW_SOON_DAYS);
  const where = `k.client_id = any($1) and (k.archived_at is not null) = $2 and ($3::text is null or k.kind = $3) and ${says(4)}`;
  const values = [clientIds, asked.isArchived, asked.kind, asked.words];
  const from = 'from kept_files k join assets a on a.id = k.asset_id';
  const files = await app.read<KeptFileShape>(
    `select ${COLUMNS}, coalesce((select jsonb_agg(jsonb_build_object('pieceId', s.piece_id, 'title', s.title) order by s.used_at desc) from (
         select x.piece_id, p.title, x.used_at from kept_file_uses x join pieces p on p.id = x.piece_id where x.kept_file_id = k.id
         order by x.used_at desc limit ${NAMED}) s), '[]') as pieces
     ${from} ${USES} where ${where} and (not $6::boolean or k.renew_by <= $5::date)
     order by case when k.renew_by <= $5::date then k.renew_by end nulls last, k.since desc, k.id limit ${MOST}`,
    [...values, soonOn, asked.isToRenew],
  );
  const [counts] = await app.read<{ all: number; toRenew: number }>(
    `select count(*)::int as all, (count(*) filter (where k.renew_by <= $5::date))::int as "toRenew" ${from} where ${where}`,
    [...values, soonOn],
  );
  const toRenew = counts?.toRenew ?? 0;
  return { files, hidden: (asked.isToRenew ? toRenew : (counts?.all ?? 0)) - files.length, toRenew };
}

/** The files of its client that are offered for a piece: those used most first. */
export async function keptFilesFor(app: App, pieceId: string, words: string): Promise<OfferedKeptFilesShape> {
  const files = await app.read<OfferedKeptFilesShape['files'][number]>(
    `select k.id, k.kind, k.title, k.about, k.renew_by as "renewBy", a.name, a.mime, u.used from kept_files k join assets a on a.id = k.asset_id ${USES}
     where k.client_id = (select client_id from pieces where id = $1) and k.archived_at is null and ${says(2)}
     order by u.used desc, k.since desc, k.id limit ${MOST_OFFERED + 1}`,
    [pieceId, words],
  );
  return { files: files.slice(0, MOST_OFFERED), hidden: Math.max(0, files.length - MOST_OFFERED) };
}
