import { fail, getDay, ok, periodStart, themeOn, type Day, type Result, type Theme } from '@zesting/core';
import type { SwapThemesBody, ThemeBody, ThemeCycleBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { ClientPlan } from '../entities/client-plan.entity.js';
import { StoredTheme } from '../entities/theme.entity.js';

/** Says the theme of a month or week; an empty name takes away what was said, so that the cycle's holds again. */
export function setTheme(app: App, viewer: Viewer, clientId: string, body: ThemeBody): Promise<Result<null>> {
  return app.write<null, { code: string }>(async (tx, now) => {
    await lockPlan(tx, clientId);
    const startOn = periodStart(getDay(body.on), body.period);
    await putTheme(tx, clientId, { period: body.period, startOn, name: body.name.trim() });
    await noteOfClient(tx, viewer, clientId, 'theme.set', { period: body.period, on: startOn, name: body.name.trim() }, now);
    return ok(null);
  });
}

/** Swaps the themes of two months, or of two weeks: what the cycle says of them is said of them themselves from then on. */
export function swapThemes(
  app: App,
  viewer: Viewer,
  clientId: string,
  body: SwapThemesBody,
): Promise<Result<null, { code: 'http.invalid' }>> {
  return app.write<null, { code: 'http.invalid' }>(async (tx, now) => {
    const plan = await lockPlan(tx, clientId);
    const { period } = body;
    const [first, second] = [body.on, body.withOn].map((on) => periodStart(getDay(on), period)) as [Day, Day]; // two of them
    if (first === second) return fail({ code: 'http.invalid' });
    const themes = (await tx.findBy(StoredTheme, { clientId, period })).map(toTheme);
    const cycle = period === 'month' ? cycleOf(plan) : null;
    const nameOn = (day: Day) => themeOn(day, themes, cycle)?.name ?? '';
    const names = [nameOn(first), nameOn(second)] as const;
    await putTheme(tx, clientId, { period, startOn: first, name: names[1] });
    await putTheme(tx, clientId, { period, startOn: second, name: names[0] });
    await noteOfClient(tx, viewer, clientId, 'theme.swapped', { period, on: first, with: second }, now);
    return ok(null);
  });
}

/** Says which themes follow one another month by month. */
export function setCycle(app: App, viewer: Viewer, clientId: string, { names, fromMonth }: ThemeCycleBody): Promise<Result<null>> {
  return app.write<null, { code: string }>(async (tx, now) => {
    const plan = await lockPlan(tx, clientId);
    const cycleNames = names.map((name) => name.trim());
    await tx.update(ClientPlan, clientId, { cycleNames, cycleFrom: fromMonth, version: plan.version + 1 });
    await noteOfClient(tx, viewer, clientId, 'theme.cycle_set', { names: cycleNames, fromMonth }, now);
    return ok(null);
  });
}

/** A client's plan under lock; made where there is none yet. */
export async function lockPlan(tx: Tx, clientId: string): Promise<ClientPlan> {
  await tx.query('insert into client_plans (client_id) values ($1) on conflict do nothing', [clientId]);
  return tx.findOneOrFail(ClientPlan, { where: { clientId }, lock: { mode: 'pessimistic_write' } });
}

async function putTheme(tx: Tx, clientId: string, { period, startOn, name }: Theme): Promise<void> {
  if (name === '') await tx.delete(StoredTheme, { clientId, period, startOn });
  else await tx.upsert(StoredTheme, { clientId, period, startOn, name }, ['clientId', 'period', 'startOn']);
}

const toTheme = ({ period, startOn, name }: StoredTheme): Theme => ({ period, startOn: getDay(startOn), name });

const cycleOf = ({ cycleNames, cycleFrom }: ClientPlan) => (cycleNames.length > 0 ? { names: cycleNames, fromMonth: cycleFrom } : null);
