import { addDays, dayIn, getDay, paceOf, quartersOf, type Day, type GoalFacts, type Reading } from '@zesting/core';
import type { GoalReadingShape, GoalShape, GoalsShape, StrategyNoteShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

interface GoalRow extends Omit<GoalShape, 'pace' | 'quarters'> {
  readonly archived: boolean;
}

/** A client's goals with their pace, and its strategy notes. Undefined where the client is archived. */
export async function goalsOf(app: App, clientId: string): Promise<GoalsShape | undefined> {
  const [client] = await app.read<{ zone: string }>('select zone from clients where id = $1 and archived_at is null', [clientId]);
  if (!client) return undefined;
  const todayOn = dayIn(app.clock.now(), client.zone);
  const [rows, pillars, notes] = await Promise.all([
    app.read<GoalRow>(
      `select g.id, g.name, g.channel_id as "channelId", g.measure, g.unit, g.start_value as "startValue", g.target, g.start_on as "startOn", g.by_on as "byOn",
         g.pillar_ids as "pillarIds", g.steps, g.version, g.archived_at is not null as archived,
         coalesce((select jsonb_agg(jsonb_build_object('on', r.on_day, 'value', r.value) order by r.on_day) from goal_readings r
           where r.goal_id = g.id and r.on_day > g.start_on), '[]') as readings
       from goals g where g.client_id = $1 order by g.by_on, g.name, g.id`,
      [clientId],
    ),
    app.read<{ id: string }>('select id from pillars where client_id = $1 and archived_at is null order by position, name', [clientId]),
    app.read<StrategyNoteShape>(
      `select n.id, n.kind, n.text, n.link, p.name as by, n.created_at as "createdAt", n.version from strategy_notes n join people p on p.id = n.author_id
       where n.client_id = $1 and n.archived_at is null order by n.created_at, n.id`,
      [clientId],
    ),
  ]);
  const open = rows.filter(({ archived }) => !archived);
  const out = await outOf(app, clientId, open);
  const goals = open.map(({ archived: _archived, ...row }) =>
    goalShape({ ...row, readings: row.measure === 'pieces' ? countedWeekly(row, out, todayOn) : row.readings }, todayOn),
  );
  const served = new Set(goals.flatMap(({ pillarIds }) => pillarIds));
  return {
    todayOn,
    goals,
    archived: rows
      .filter(({ archived }) => archived)
      .map(({ id, name }) => ({ id, name }))
      .reverse(),
    pillarsWithout: goals.length === 0 ? [] : pillars.map(({ id }) => id).filter((id) => !served.has(id)),
    notes,
  };
}

function goalShape(row: Omit<GoalShape, 'pace' | 'quarters'>, todayOn: Day): GoalShape {
  const facts: GoalFacts = {
    startValue: row.startValue,
    target: row.target,
    startOn: getDay(row.startOn),
    byOn: getDay(row.byOn),
    readings: row.readings as Reading[], // days of the database's
  };
  return { ...row, pace: paceOf(facts, todayOn), quarters: quartersOf(facts, todayOn) };
}

interface OutRow {
  readonly on: Day;
  readonly pieceId: string;
  readonly channelId: string;
  readonly pillarId: string | null;
}

/** What went out since the first of the goals that count pieces began: none where there is no such goal. */
async function outOf(app: App, clientId: string, goals: readonly GoalRow[]): Promise<OutRow[]> {
  const counted = goals.filter(({ measure }) => measure === 'pieces');
  if (counted.length === 0) return [];
  const [from, to] = [
    counted.map(({ startOn }) => startOn).sort()[0],
    counted
      .map(({ byOn }) => byOn)
      .sort()
      .at(-1),
  ];
  return app.read<OutRow>(
    `select l.on_day as on, l.piece_id as "pieceId", l.channel_id as "channelId", p.pillar_id as "pillarId" from placements l join pieces p on p.id = l.piece_id
     where l.client_id = $1 and l.state = 'out' and l.on_day > $2 and l.on_day <= $3 order by l.on_day`,
    [clientId, from, to],
  );
}

const WEEK_DAYS = 7;

/**
 * How many pieces went out after a goal's start, at the end of each of its weeks and today: each once, on the day on which it was first out on the goal's
 * channel, or on any where it names none; of its pillars alone where it names some.
 */
export function countedWeekly(
  goal: Pick<GoalShape, 'channelId' | 'pillarIds' | 'startOn' | 'byOn'>,
  out: readonly OutRow[],
  todayOn: Day,
): GoalReadingShape[] {
  const first = new Map<string, Day>();
  for (const { on, pieceId, channelId, pillarId } of out) {
    if (goal.channelId !== null && channelId !== goal.channelId) continue;
    if (goal.pillarIds.length > 0 && (pillarId === null || !goal.pillarIds.includes(pillarId))) continue;
    if (!first.has(pieceId)) first.set(pieceId, on);
  }
  const days = [...first.values()].filter((on) => on > goal.startOn && on <= goal.byOn).sort();
  const end = todayOn < goal.byOn ? todayOn : getDay(goal.byOn);
  const readings: GoalReadingShape[] = [];
  let counted = 0;
  for (let on = addDays(getDay(goal.startOn), WEEK_DAYS); ; on = addDays(on, WEEK_DAYS)) {
    const at = on < end ? on : end;
    if (at <= goal.startOn) break;
    while ((days[counted] ?? '9999') <= at) counted++;
    readings.push({ on: at, value: counted });
    if (at === end) break;
  }
  return readings;
}
