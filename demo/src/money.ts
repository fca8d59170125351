import { addDays, firstOfMonth, getValue, type Day } from '@zesting/core';
import { agreeFee, agreeRate, type App } from '@zesting/server';
import type { ClientKey } from './clients.js';
import type { Setup } from './setup.js';
import type { PersonKey } from './story.js';

/** What each client pays for a month, in pence: since the first of a month two years ago, and, where it rose, since this year's first month. */
const FEES: readonly (readonly [ClientKey, first: number, now?: number])[] = [
  ['kiln', 480_000, 520_000],
  ['moss', 260_000],
  ['tide', 270_000, 290_000],
];

/** What an hour of each costs, in pence. */
const RATES: readonly (readonly [PersonKey, number])[] = [
  ['noor', 4_200],
  ['teo', 5_500],
  ['piet', 2_650],
  ['sunniva', 2_500],
  ['dana', 3_100],
  ['ivo', 3_000],
];

/** Agrees on fees and rates. @param todayOn the agency's day at the story's present */
export async function addMoney(app: App, setup: Setup, todayOn: Day): Promise<void> {
  const begin = firstOfMonth(addDays(todayOn, -730).slice(0, 7));
  const year = firstOfMonth(`${todayOn.slice(0, 4)}-01`);
  for (const [client, first, now] of FEES) {
    const agreed = [{ fromOn: begin, amount: first }, ...(now === undefined ? [] : [{ fromOn: year, amount: now }])];
    getValue(await agreeFee(app, setup.viewers.marta, setup.clients[client].id, agreed, 0));
  }
  for (const [person, amount] of RATES)
    getValue(await agreeRate(app, setup.viewers.marta, setup.viewers[person].personId, [{ fromOn: begin, amount }], 0));
}
