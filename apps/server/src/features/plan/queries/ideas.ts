import {
  addDays,
  dayIn,
  freshnessOf,
  getDay,
  sharedWords,
  similarity,
  ALIKE,
  supplyOf,
  worthOf,
  daysBetween,
  type Day,
  type IdeaWeights,
} from '@zesting/core';
import type {
  CoveredShape,
  IdeaFileShape,
  IdeaPageShape,
  IdeaPartShape,
  IdeaShape,
  IdeasShape,
  KeptRequestShape,
  SupplyShape,
} from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import { UPLOAD_COLUMNS } from '../../production/index.js';
import { rhythmsOf, slotsBetween } from './rhythm-of.js';

type IdeaRow = Omit<IdeaShape, 'worth' | 'freshness'>;

const COLUMNS = `i.id, i.client_id as "clientId", i.title, i.note, i.link, i.pillar_id as "pillarId", i.format_id as "formatId", i.channel_id as "channelId",
  i.merit, i.ease, i.chance, i.not_before_on as "notBeforeOn", i.fresh_until_on as "freshUntilOn", i.state, i.piece_id as "pieceId", i.created_at as "createdAt",
  i.version, coalesce(a.name, x.name) as by, p.title as "pieceTitle",
  (select count(*)::int from ideas o where o.combined_into = i.id) as parts,
  (select count(*)::int from assets f where f.idea_id = i.id or f.idea_id in (select o.id from ideas o where o.combined_into = i.id)) as files,
  (select count(*)::int from team_notes n where n.idea_id = i.id and n.removed_at is null) as notes`;
const FROM =
  'from ideas i left join people a on a.id = i.author_id left join contacts x on x.id = i.contact_id left join pieces p on p.id = i.piece_id';

/** The agency's weights, to be joined once; and the worth of an idea `i` by them, as core's `worthOf` has it. */
export const WEIGHTS = `(select (idea_weights ->> 'merit')::int as m, (idea_weights ->> 'ease')::int as e, (idea_weights ->> 'chance')::int as c from agencies) w`;
export const WORTH = `case when w.m + w.e + w.c = 0 then 0.5 else ((coalesce(i.merit, 3) - 1) * w.m + (coalesce(i.ease, 3) - 1) * w.e + (coalesce(i.chance, 3) - 1) * w.c)
  / (4.0 * (w.m + w.e + w.c)) end`;

const PAGE = 50;

export async function ideaWeights(reader: Reader): Promise<IdeaWeights> {
  const [row] = await rowsOf<{ weights: IdeaWeights }>(reader, 'select idea_weights as weights from agencies');
  if (!row) throw new Error('there is no agency');
  return row.weights;
}

const shapeOf =
  (weights: IdeaWeights, todayOn: Day) =>
  (row: IdeaRow): IdeaShape => ({
    ...row,
    worth: worthOf(row, weights),
    freshness: freshnessOf(row.freshUntilOn === null ? null : getDay(row.freshUntilOn), todayOn),
  });

export interface IdeasAsked {
  /** null: of all the viewer's clients, and of none */
  readonly clientId: string | null;
  readonly state: 'open' | 'dropped' | 'used';
  /** how many were told before */
  readonly after: number;
}

/** Ideas on the shelf, the best first, of equals the newest; those for no client yet stand among those of every client. */
export async function ideasOf(app: App, viewerClientIds: readonly string[], viewerZone: string, asked: IdeasAsked): Promise<IdeasShape> {
  const clientIds = asked.clientId === null ? viewerClientIds : [asked.clientId];
  const todayOn = dayIn(app.clock.now(), viewerZone);
  const weights = await ideaWeights(app.manager);
  // the page first, by what orders it alone
  const rows = await app.read<IdeaRow>(
    `with page as materialized (
       select i.id, (i.fresh_until_on < $3) is true as stale, ${WORTH} as worth, i.created_at from ideas i cross join ${WEIGHTS}
       where (i.client_id = any($1) or i.client_id is null) and i.state = $2
       order by stale, worth desc, i.created_at desc, i.id limit ${PAGE + 1} offset $4)
     select ${COLUMNS} ${FROM} join page g on g.id = i.id order by g.stale, g.worth desc, g.created_at desc, g.id`,
    [clientIds, asked.state, todayOn, asked.after],
  );
  const counts = await app.read<{ state: 'open' | 'dropped' | 'used'; count: number }>(
    "select state, count(*) as count from ideas where (client_id = any($1) or client_id is null) and state <> 'combined' group by state",
    [clientIds],
  );
  const countOf = (state: 'open' | 'dropped' | 'used') => counts.find((row) => row.state === state)?.count ?? 0;
  const isFirst = asked.state === 'open' && asked.after === 0;
  return {
    ideas: rows.slice(0, PAGE).map(shapeOf(weights, todayOn)),
    next: rows.length > PAGE ? String(asked.after + PAGE) : null,
    counts: { open: countOf('open'), dropped: countOf('dropped'), used: countOf('used') },
    requests: isFirst ? await keptRequests(app, clientIds) : [],
    supply: isFirst && asked.clientId !== null ? await supplyFor(app, asked.clientId) : [],
  };
}

const keptRequests = (app: App, clientIds: readonly string[]): Promise<KeptRequestShape[]> =>
  app.read<KeptRequestShape>(
    `select id as "requestId", client_id as "clientId", title, received_at as "receivedAt" from requests
     where client_id = any($1) and state = 'idea' order by received_at desc, id limit ${PAGE}`,
    [clientIds],
  );

/** Weeks of the rhythm that the stock is held against. */
const SUPPLY_WEEKS = 8;

/** How many weeks a client's ideas would feed its rhythm, pillar by pillar. What is stale counts no more. */
async function supplyFor(app: App, clientId: string): Promise<SupplyShape[]> {
  const [rhythm] = await rhythmsOf(app.manager, [clientId], null, app.clock.now());
  if (!rhythm) return [];
  const pillars = await app.read<{ id: string; name: string; share: number }>(
    'select id, name, share from pillars where client_id = $1 and archived_at is null order by position, name',
    [clientId],
  );
  const ideas = await app.read<{ pillarId: string | null }>(
    `select i.pillar_id as "pillarId" from ideas i where i.client_id = $1 and i.state = 'open' and (i.fresh_until_on is null or i.fresh_until_on >= $2)`,
    [clientId, rhythm.todayOn],
  );
  const slots = slotsBetween(rhythm, rhythm.todayOn, addDays(rhythm.todayOn, SUPPLY_WEEKS * 7 - 1));
  const names = new Map(pillars.map(({ id, name }) => [id, name]));
  return supplyOf(pillars, ideas, slots, SUPPLY_WEEKS).map((line) => ({
    ...line,
    name: names.get(line.pillarId ?? '') ?? 'Without a pillar',
  }));
}

export async function ideaPage(app: App, ideaId: string, viewerZone: string): Promise<IdeaPageShape> {
  const [row] = await app.read<IdeaRow>(`select ${COLUMNS} ${FROM} where i.id = $1`, [ideaId]);
  if (!row) throw new Error('the idea went away');
  const combined = await app.read<IdeaPartShape>(
    `select i.id, i.title, i.note, i.link, coalesce(a.name, x.name) as by ${FROM} where i.combined_into = $1 order by i.created_at, i.id`,
    [ideaId],
  );
  const attached = await app.read<IdeaFileShape>(
    `select ${UPLOAD_COLUMNS}, idea_id as "ideaId" from assets where idea_id = any($1) order by created_at, id`,
    [[ideaId, ...combined.map(({ id }) => id)]],
  );
  return { ...shapeOf(await ideaWeights(app.manager), dayIn(app.clock.now(), viewerZone))(row), combined, attached };
}

/** What an idea and its parts say, for the brief of the piece that it becomes. */
export async function wordsOfIdea(reader: Reader, ideaId: string): Promise<string> {
  const rows = await rowsOf<{ isPart: boolean; title: string; note: string; link: string | null }>(
    reader,
    `select combined_into is not null as "isPart", title, note, link from ideas where id = $1 or combined_into = $1
     order by combined_into is not null, created_at, id`,
    [ideaId],
  );
  return rows
    .flatMap(({ isPart, title, note, link }) => [isPart ? [title, note].filter(Boolean).join('\n') : note, link])
    .filter(Boolean)
    .join('\n\n');
}

/** So many candidates are looked at, so many told. */
const LIKE_CANDIDATES = 20;
const LIKE_TOLD = 5;
/** The same subject in the same format within so many days is worth a second thought. */
const SOON_DAYS = 90;

/** What of the same client is much like an idea already: pieces, and other open ideas. */
export async function coveredBy(app: App, ideaId: string): Promise<CoveredShape[]> {
  const [idea] = await app.read<{ clientId: string; title: string; formatId: string | null; zone: string }>(
    // an idea for no client yet is like nothing
    'select i.client_id as "clientId", i.title, i.format_id as "formatId", c.zone from ideas i join clients c on c.id = i.client_id where i.id = $1',
    [ideaId],
  );
  if (!idea) return [];
  const { zone } = idea;
  const todayOn = dayIn(app.clock.now(), zone);
  const rows = await app.read<Omit<CoveredShape, 'words' | 'isSoon'> & { madeAt: string }>(
    `(select 'piece' as kind, p.id, p.title, p.format_id as "formatId", p.created_at as "madeAt",
        coalesce((select max(l.on_day) from placements l where l.piece_id = p.id and not l.cancelled), p.aim_on) as on
      from pieces p where p.client_id = $1 and p.title_plain % plain_letters($2) and not p.shelved
      order by similarity(p.title_plain, plain_letters($2)) desc limit ${LIKE_CANDIDATES})
     union all
     (select 'idea', i.id, i.title, i.format_id, i.created_at, null from ideas i where i.client_id = $1 and i.id <> $3 and i.state = 'open'
        and i.title_plain % plain_letters($2) order by similarity(i.title_plain, plain_letters($2)) desc limit ${LIKE_CANDIDATES})`,
    [idea.clientId, idea.title, ideaId],
  );
  return rows
    .map(({ madeAt, ...row }) => ({ ...row, madeAt, likeness: similarity(idea.title, row.title) }))
    .filter(({ likeness }) => likeness >= ALIKE)
    .sort((a, b) => b.likeness - a.likeness)
    .slice(0, LIKE_TOLD)
    .map(({ likeness: _likeness, madeAt, ...row }) => ({
      ...row,
      words: sharedWords(idea.title, row.title),
      isSoon:
        row.kind === 'piece' &&
        idea.formatId !== null &&
        row.formatId === idea.formatId &&
        Math.abs(daysBetween(getDay(row.on ?? dayIn(madeAt, zone)), todayOn)) <= SOON_DAYS,
    }));
}
