import type { StockShape } from '@zesting/contract';
import { FORM_STOCK, ROUTE_STOCK, SKILL_STOCK, WRITING_STOCK, type InstantText } from '@zesting/core';
import { recordActivity } from '../../../platform/activity.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { makeStockForm } from '../../intake/index.js';
import { addRoute } from '../../planning/index.js';
import { Format } from '../entities/format.entity.js';
import { agencyOf } from '../queries/settings.js';

/**
 * Adds what is missing of the starting stock: formats, skills, routes for formats that have none, the form that clients begin with. What the
 * agency has stays as it is, what it took out stays out. Inside the caller's transaction.
 */
export async function takeStock(tx: Tx, actor: string, now: InstantText): Promise<StockShape> {
  const agency = await agencyOf(tx, true);
  const formats = await addMissing(
    tx,
    'formats',
    ROUTE_STOCK.map((route) => route.formatName),
  );
  // formats that were there keep what they are written by
  for (const name of formats) {
    const { texts, outline, isLaidOut = false } = WRITING_STOCK[name] ?? { texts: [], outline: [] };
    await tx.update(Format, { name }, { texts: [...texts], outline: [...outline], isLaidOut });
  }
  const skills = await addMissing(tx, 'skills', SKILL_STOCK);
  const routes: string[] = [];
  for (const route of ROUTE_STOCK) {
    const there = await rowsOf(tx, 'select 1 from routes r join formats f on f.id = r.format_id where lower(f.name) = lower($1)', [
      route.formatName,
    ]);
    // a format or skill that the agency took out would make a route that nobody wants
    if (there.length > 0 || !(await isOffered(tx, route.formatName))) continue;
    const made = await addRoute(
      tx,
      actor,
      {
        ...route,
        steps: route.steps.map((step) => ({ ...step, after: [...step.after], checklist: [...(step.checklist ?? [])] })),
        roundsAllowed: null,
      },
      now,
    );
    if (made.ok) routes.push(route.name);
  }
  const form = agency.defaultFormId === null && (await giveDefaultForm(tx, actor, now));
  const added = { formats, routes, skills, form };
  if (form || formats.length + routes.length + skills.length > 0) {
    // lists that somebody is editing as they were before are not saved over what was added
    await tx.query('update agencies set version = version + 1');
    await recordActivity(tx, {
      clientId: null,
      thing: 'agency',
      thingId: agency.id,
      verb: 'agency.stock_taken',
      actor,
      detail: { ...added },
      at: now,
    });
  }
  return added;
}

const isOffered = async (tx: Tx, format: string): Promise<boolean> =>
  (await rowsOf(tx, 'select 1 from formats where lower(name) = lower($1) and archived_at is null', [format])).length > 0;

async function addMissing(tx: Tx, list: 'formats' | 'skills', names: readonly string[]): Promise<string[]> {
  const rows = await rowsOf<{ name: string }>(
    tx,
    `with added as (
       insert into ${list} (name, position)
       select n.name, (select coalesce(max(position), 0) from ${list}) + n.at from unnest($1::text[]) with ordinality n (name, at)
       where not exists (select 1 from ${list} l where lower(l.name) = lower(n.name))
       returning name, position)
     select name from added order by position`,
    [names],
  );
  return rows.map((row) => row.name);
}

/** The form that new clients begin with; false where no route could take its requests. */
async function giveDefaultForm(tx: Tx, actor: string, now: InstantText): Promise<boolean> {
  const formId = await makeStockForm(tx, { name: actor }, FORM_STOCK[0].name, now);
  if (formId === undefined) return false;
  await tx.query('update agencies set default_form_id = $1', [formId]);
  return true;
}
