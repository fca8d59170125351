import { ALIKE, dayIn, sharedWords, similarity, trigramsOf, type Day } from '@zesting/core';
import type { ClashShape, TwinShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { daysOff } from '../../planning/index.js';

/** So many candidates are looked at, so many told. */
const CANDIDATES = 40;
const TOLD = 5;
/** The texts of so many of a client's newest requests and pieces are looked into, and so much of each. */
const TEXTS = 400;
const TEXT_LENGTH = 1_500;
/** A text has a title in it from here on: the usual threshold of words in a text. @see PostgreSQL, pg_trgm.word_similarity_threshold */
const IN_TEXT = 0.6;
/** A title of fewer trigrams, one word or two short ones, stands in many a text by chance. */
const LEAST_TRIGRAMS = 12;

export interface Sought {
  readonly clientId: string;
  readonly title: string;
  /** the request that they are sought for; null where it is not sent yet */
  readonly requestId: string | null;
  /** the client's, whose days are told */
  readonly zone: string;
}

interface Candidate extends Omit<TwinShape, 'on' | 'likeness' | 'sharedWords' | 'isInText'> {
  readonly on: string | null;
  readonly at: string;
  /** where its title is not alike: the text that has the title in it, and how much of it, as core's `wordSimilarity` has it */
  readonly text: string | null;
  readonly part: number | null;
}

/**
 * What is alike, of the same client: a title that is, or a text (what was answered, the copy) that has the title in it. The database finds candidates, titles
 * by the trigram index, texts among the newest; core scores titles and explains both. Titles come first.
 */
export async function twinsOf(app: App, { clientId, title, requestId, zone }: Sought): Promise<TwinShape[]> {
  const requests = `r.id is distinct from $3 and r.state not in ('merged', 'withdrawn') and not exists (select 1 from piece_requests b where b.request_id = r.id)`;
  const pieces = 'not exists (select 1 from piece_requests b where b.piece_id = p.id and b.request_id = $3)';
  const request = `'request' as kind, r.id, r.number, r.title, r.state, null as "formatName", null as "on", r.received_at as at`;
  const piece = `'piece', p.id, p.number, p.title, p.stage, f.name, p.aim_on::text, p.created_at`;
  const rows = await app.read<Candidate>(
    `(select ${request}, null as text, null::float8 as part from requests r where r.client_id = $1 and r.title_plain % plain_letters($2) and ${requests}
        order by similarity(r.title_plain, plain_letters($2)) desc limit ${CANDIDATES})
     union all
     (select ${piece}, null, null from pieces p join formats f on f.id = p.format_id where p.client_id = $1 and p.title_plain % plain_letters($2) and ${pieces}
        order by similarity(p.title_plain, plain_letters($2)) desc limit ${CANDIDATES})
     union all
     (select ${request}, r.text, word_similarity(plain_letters($2), plain_letters(r.text)) from (
         select o.*, left((select string_agg(value, ' ') from jsonb_each_text(o.answers)), ${TEXT_LENGTH}) as text
         from (select * from requests where client_id = $1 order by received_at desc, id limit ${TEXTS}) o) r
        where $4 and not r.title_plain % plain_letters($2) and ${requests} and word_similarity(plain_letters($2), plain_letters(r.text)) >= ${IN_TEXT}
        order by 10 desc limit ${TOLD})
     union all
     (select ${piece}, p.text, word_similarity(plain_letters($2), plain_letters(p.text)) from (
         select o.*, left(o.content #>> '{shared,copy}', ${TEXT_LENGTH}) as text
         from (select * from pieces where client_id = $1 order by created_at desc, id limit ${TEXTS}) o) p join formats f on f.id = p.format_id
        where $4 and not p.title_plain % plain_letters($2) and ${pieces} and word_similarity(plain_letters($2), plain_letters(p.text)) >= ${IN_TEXT}
        order by 10 desc limit ${TOLD})`,
    [clientId, title, requestId, trigramsOf(title).size >= LEAST_TRIGRAMS],
  );
  return rows
    .map(({ on, at, text, part, ...row }) => ({
      ...row,
      on: on ?? dayIn(at, zone),
      likeness: part ?? similarity(title, row.title),
      sharedWords: sharedWords(title, text ?? row.title),
      isInText: text !== null,
    }))
    .filter(({ likeness, isInText }) => likeness >= (isInText ? IN_TEXT : ALIKE))
    .sort((a, b) => Number(a.isInText) - Number(b.isInText) || b.likeness - a.likeness || (a.on < b.on ? 1 : -1))
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
