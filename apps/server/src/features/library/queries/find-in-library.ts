import { COPY_LANGUAGES, copyWords, type CopyLanguage } from '@zesting/core';
import type { LibraryPieceShape, LibraryShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { firstPicture, STATE_OUTSIDE } from '../../production/index.js';

/** What is looked for among pieces, past and present. */
export interface LibraryAsked {
  /** words; several must all stand there, "in quotes" in a row, -without; the last may be begun only */
  readonly words: string;
  readonly formatId: string | null;
  readonly pillarId: string | null;
  readonly channelId: string | null;
  /** days between which something of it is, or was, published */
  readonly from: string | null;
  readonly to: string | null;
  /** the last piece of the page before */
  readonly after: string | null;
}

const PAGE = 30;
/** Around what was found in a text: characters that no text has. */
const [OPENS, CLOSES] = ['\u0002', '\u0003'];

/** The words without the last, and the last as the beginning of a word where it is a plain one. */
export function splitWords(words: string): { readonly whole: string; readonly begun: string } {
  const [, whole = '', begun = ''] = /^(.*?)([\p{L}\p{N}]{2,})$/su.exec(words.trim()) ?? [];
  const isInQuotes = (words.match(/"/g)?.length ?? 0) % 2 === 1;
  return begun === '' || isInQuotes || /\S$/.test(whole) ? { whole: words.trim(), begun: '' } : { whole: whole.trim(), begun };
}

/** SQL: the words `$first` and the beginning `$first + 1` as they are looked for in a language. */
const queryIn = (language: CopyLanguage, first: number): string =>
  `websearch_to_tsquery('public.zesting_${language}', $${first}) && case when $${first + 1} = '' then ''::tsquery else to_tsquery('public.zesting_${language}', $${first + 1} || ':*') end`;

/**
 * Pieces of some clients by what they say and where they stand, the newest first. What few pieces say, or where few stand, is gathered first; what
 * many say is met soon by going back from the newest.
 */
export async function findInLibrary(app: App, clientIds: readonly string[], asked: LibraryAsked): Promise<LibraryShape> {
  const { whole, begun } = splitWords(asked.words);
  const isAsked = whole !== '' || begun !== '';
  const spoken = await app.read<{ language: CopyLanguage }>('select distinct language from clients where id = any($1)', [clientIds]);
  const languages = COPY_LANGUAGES.filter((language) => spoken.some((row) => row.language === language));
  if (languages.length === 0) return { pieces: [], next: null, isAsked }; // there is no client
  const matches = languages.map((language) => `(w.language = '${language}' and w.words @@ (${queryIn(language, 2)}))`).join(' or ');
  const few =
    (isAsked
      ? await fewOf(app, `select w.piece_id as id from piece_words w where w.client_id = any($1) and (${matches})`, [
          clientIds,
          whole,
          begun,
        ])
      : null) ?? (await standing(app, clientIds, asked));
  const rows = await app.read<LibraryPieceShape & { isLaidOut: boolean }>(
    `with found as (
       select w.piece_id, w.language, w.made_at from piece_words w join pieces p on p.id = w.piece_id
       where w.client_id = any($1) and ($2::text || $3::text = '' or ${matches})
         and ($4::uuid is null or p.format_id = $4) and ($5::uuid is null or p.pillar_id = $5)
         and (($6::uuid is null and $7::date is null and $8::date is null) or exists (select 1 from placements l where l.piece_id = p.id and not l.cancelled
           and ($6::uuid is null or l.channel_id = $6) and ($7::date is null or l.on_day >= $7) and ($8::date is null or l.on_day <= $8)))
         and ($10::uuid[] is null or w.piece_id = any($10))
         and ($9::uuid is null or (w.made_at, w.piece_id) < (select made_at, piece_id from piece_words where piece_id = $9))
       order by w.made_at desc, w.piece_id desc limit ${PAGE + 1})
     select p.id as "pieceId", p.number, p.client_id as "clientId", p.title, f.name as "formatName", l.name as "pillarName", p.stage,
       left(p.content -> 'shared' ->> 'copy', 4000) as copy, coalesce((p.content -> 'shared' ->> 'isLaidOut')::boolean, false) as "isLaidOut", ${firstPicture('p.content')} as "pictureId",
       array(select distinct t #>> '{}' from jsonb_path_query(p.content, '$.channels.*.tags[*]') t) as tags,
       coalesce((select jsonb_agg(jsonb_build_object('channelName', h.name, 'on', l.on_day, 'state', ${STATE_OUTSIDE}) order by l.on_day desc nulls last)
         from placements l join channels h on h.id = l.channel_id where l.piece_id = p.id and not l.cancelled), '[]') as placements,
       ${snippetOf(languages)} as snippet
     from found x join pieces p on p.id = x.piece_id join formats f on f.id = p.format_id left join pillars l on l.id = p.pillar_id
     order by x.made_at desc, x.piece_id desc`,
    [clientIds, whole, begun, asked.formatId, asked.pillarId, asked.channelId, asked.from, asked.to, asked.after, few],
  );
  const pieces = rows.slice(0, PAGE).map(({ isLaidOut, ...piece }) => ({ ...piece, copy: copyWords({ copy: piece.copy, isLaidOut }) }));
  return { pieces, next: rows.length > PAGE ? (pieces.at(-1)?.pieceId ?? null) : null, isAsked };
}

/** So many pieces are few: they are looked through one by one. */
const FEW = 3000;

/** The ids that a statement finds, as long as they are few; null: they are many. */
async function fewOf(app: App, sql: string, values: readonly unknown[]): Promise<readonly string[] | null> {
  const rows = await app.read<{ id: string }>(`${sql} limit ${FEW + 1}`, [...values]);
  return rows.length > FEW ? null : rows.map(({ id }) => id);
}

/** The pieces that stand where it is asked for, as long as they are few; null: they are many, or that is not asked. */
async function standing(app: App, clientIds: readonly string[], { channelId, from, to }: LibraryAsked): Promise<readonly string[] | null> {
  if (channelId === null && from === null && to === null) return null;
  return fewOf(
    app,
    `select l.piece_id as id from placements l where l.client_id = any($1) and not l.cancelled and ($2::uuid is null or l.channel_id = $2)
       and ($3::date is null or l.on_day >= $3) and ($4::date is null or l.on_day <= $4)`,
    [clientIds, channelId, from, to],
  );
}

/** SQL: where the words stand in a piece's copy, with marks around them; the beginning of the copy where nothing is asked for. */
function snippetOf(languages: readonly CopyLanguage[]): string {
  const text = `left(coalesce(p.content -> 'shared' ->> 'copy', ''), 4000)`;
  const cases = languages.map(
    (language) =>
      `when '${language}' then ts_headline('public.zesting_${language}', ${text}, ${queryIn(language, 2)}, E'MaxWords=30,MinWords=12,StartSel=${OPENS},StopSel=${CLOSES}')`,
  );
  return cases.length === 0
    ? "''"
    : `case when $2::text || $3::text = '' then left(${text}, 200) else case x.language ${cases.join(' ')} end end`;
}
