import { addDays, inTreeOrder, leavesOf, matrixSize, monthsLasting, unusedBranches, type Day } from '@zesting/core';
import type { TopicShape, TopicsShape, TopicUseShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { slotsAhead } from '../../plan/index.js';

/** The rhythm of so many weeks says how much is taken a month. */
const RATE_DAYS = 84;
const DAYS_A_MONTH = 365.25 / 12;
/** What was made longer ago may be made again. */
const USED_DAYS = 365;

interface Row extends TopicShape {
  readonly isArchived: boolean;
}

/** What a client's content is about: the tree, what was made of it, and how long it lasts. Undefined where the client is archived. */
export async function topicsOf(app: App, clientId: string): Promise<TopicsShape | undefined> {
  const ahead = await slotsAhead(app, clientId, RATE_DAYS);
  if (!ahead) return undefined;
  const [rows, pillars, [ways], uses] = await Promise.all([
    app.read<Row>(
      `select t.id, t.pillar_id as "pillarId", t.parent_id as "parentId", t.name, t.months, t.version, t.archived_at is not null as "isArchived"
       from topics t where t.client_id = $1 order by t.position, t.name, t.id`,
      [clientId],
    ),
    app.read<{ id: string }>('select id from pillars where client_id = $1 and archived_at is null order by position, name', [clientId]),
    app.read<{ names: string[]; version: number }>('select names, version from treatments where client_id = $1', [clientId]),
    usesOf(app, clientId),
  ]);
  const pillarIds = pillars.map(({ id }) => id);
  const shape = ({ isArchived: _isArchived, ...topic }: Row): TopicShape => topic;
  const topics = inTreeOrder(
    pillarIds,
    rows.filter(({ isArchived }) => !isArchived),
  ).map(shape);
  const treatments = ways?.names ?? [];
  const size = matrixSize(pillars.length, topics, treatments.length);
  const leaves = new Set(leavesOf(topics).map(({ id }) => id));
  // a subject that was made in no way in particular fills no cell of several ways
  const filled = new Set(
    uses.flatMap(({ topicId, treatment }) =>
      leaves.has(topicId) && (treatments.length === 0 || treatments.includes(treatment))
        ? [`${topicId} ${treatments.length > 0 ? treatment : ''}`]
        : [],
    ),
  );
  const perMonth = (ahead.slots * DAYS_A_MONTH) / RATE_DAYS;
  const free = size.cells - filled.size;
  const since = addDays(ahead.todayOn, -USED_DAYS).slice(0, 7);
  const used = new Set(uses.flatMap(({ topicId, month }) => (month === null || month >= since ? [topicId] : [])));
  return {
    topics,
    archived: rows.filter(({ isArchived }) => isArchived).map(shape),
    treatments,
    treatmentsVersion: ways?.version ?? 1,
    uses,
    size: { ...size, free, perMonth, lastsMonths: monthsLasting(size.cells, perMonth), freeLastsMonths: monthsLasting(free, perMonth) },
    unused: unusedBranches(topics, used),
    thisMonth: ahead.todayOn.slice(0, 7),
  };
}

/** What a client's ideas and pieces are about: an idea that became a piece is told as that. */
async function usesOf(app: App, clientId: string): Promise<TopicUseShape[]> {
  const rows = await app.read<Omit<TopicUseShape, 'month'> & { on: Day | null }>(
    `select u.topic_id as "topicId", u.treatment, case when p.id is null then 'idea' else 'piece' end as kind, coalesce(p.id, i.id) as id,
       coalesce(p.title, i.title) as title, coalesce((select min(l.on_day) from placements l where l.piece_id = p.id and not l.cancelled), p.aim_on) as on
     from topic_uses u left join ideas i on i.id = u.idea_id left join pieces p on p.id = coalesce(u.piece_id, i.piece_id)
     where u.client_id = $1 and (i.id is null or i.state <> 'dropped') and (p.id is null or not p.shelved)
     order by 6 desc nulls first, 5, 4`,
    [clientId],
  );
  return rows.map(({ on, ...row }) => ({ ...row, month: on === null ? null : on.slice(0, 7) }));
}
