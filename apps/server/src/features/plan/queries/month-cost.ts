import { batchOf, bindSlots, firstOfMonth, isAhead, lastOfMonth, type RouteStep } from '@zesting/core';
import type { MonthCostShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { Outlooks } from '../../planning/index.js';
import { blackoutsBetween, placedBetween, rhythmsOf, slotsBetween } from './rhythm-of.js';

/** What the open slots of a client's month ask to be made, and the hours that those who can do it have left until then. Undefined: archived. */
export async function monthCost(app: App, clientId: string, month: string): Promise<MonthCostShape | undefined> {
  const now = app.clock.now();
  const [from, to] = [firstOfMonth(month), lastOfMonth(month)];
  const [rhythm] = await rhythmsOf(app.manager, [clientId], from, now);
  if (!rhythm) return undefined;
  const closed = (await blackoutsBetween(app.manager, [clientId], from, to)).get(clientId);
  const bound = bindSlots(slotsBetween(rhythm, from, to), await placedBetween(app.manager, [clientId], from, to));
  const open = bound.slots.filter(({ slot, placed }) => placed === null && isAhead(slot, now) && !closed?.has(slot.on));
  const routes = await app.read<{ formatId: string; formatName: string; steps: RouteStep[] }>(
    `select distinct on (f.id) f.id as "formatId", f.name as "formatName", r.steps from formats f left join routes r on r.format_id = f.id and r.archived_at is null
     order by f.id, r.name, r.id`,
  );
  const routeOf = new Map(routes.map((route) => [route.formatId, route]));
  const batch = batchOf(
    open.map(({ slot }) => slot.formatId),
    (formatId) => routeOf.get(formatId)?.steps ?? [],
  );
  const last = open.at(-1)?.slot.on;
  const outlooks = last === undefined || batch.skills.length === 0 ? null : await Outlooks.load(app);
  return {
    formats: batch.formats.map(({ formatId, count }) => ({ formatId, name: routeOf.get(formatId)?.formatName ?? '', count })),
    ofAny: batch.ofAny,
    skills: batch.skills.map(({ skill, minutes }) => ({
      skill,
      minutes,
      freeMinutes: outlooks && last !== undefined ? outlooks.freeUntil(outlooks.able(skill, clientId), last) : 0,
    })),
    untilOn: last ?? null,
  };
}
