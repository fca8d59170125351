import { dayIn, fail, ok, type Result } from '@zesting/core';
import type { SpreadBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Spread, type SpreadLine } from '../entities/spread.entity.js';

type Refused = {
  code:
    | 'spread.line_twice'
    | 'format.unknown'
    | 'channel.unknown'
    | 'route.unknown'
    | 'guideline.unknown'
    | 'person.unknown'
    | 'person.unskilled'
    | 'person.barred';
};

/** Keeps a spread for a client. It is offered for sources once it is put to use. */
export function addSpread(app: App, viewer: Pick<Viewer, 'name'>, clientId: string, body: SpreadBody): Promise<Result<string, Refused>> {
  return app.write<string, Refused>(async (tx, now) => {
    const refused = await refusedFor(tx, clientId, body, []);
    if (refused) return fail(refused);
    const spread = await tx.save(tx.create(Spread, { ...said(body), clientId, usedSince: null, madeAt: now, archivedAt: null }));
    await noteOfClient(tx, viewer, clientId, 'spread.added', { name: spread.name }, now);
    return ok(spread.id);
  });
}

/** Changes a spread. What was made by it stays as it was made. */
export function editSpread(
  app: App,
  viewer: Pick<Viewer, 'name'>,
  id: string,
  body: SpreadBody,
  version: number,
): Promise<Result<null, Refused | { code: 'http.changed_meanwhile' }>> {
  return app.write<null, Refused | { code: 'http.changed_meanwhile' }>(async (tx, now) => {
    const spread = await lock(tx, id);
    if (spread.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const refused = await refusedFor(tx, spread.clientId, body, spread.lines);
    if (refused) return fail(refused);
    Object.assign(spread, said(body));
    await tx.save(spread);
    await noteOfClient(tx, viewer, spread.clientId, 'spread.edited', { name: spread.name }, now);
    return ok(null);
  });
}

/** Offers a spread for its sources from the client's today on, or no more. */
export function putToUse(app: App, viewer: Pick<Viewer, 'name'>, id: string, isUsed: boolean): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const spread = await lock(tx, id);
    if ((spread.usedSince !== null) === isUsed) return ok(null);
    const [client] = await rowsOf<{ zone: string }>(tx, 'select zone from clients where id = $1', [spread.clientId]);
    if (!client) throw new Error('the client went away');
    spread.usedSince = isUsed ? dayIn(now, client.zone) : null;
    await tx.save(spread);
    await noteOfClient(tx, viewer, spread.clientId, isUsed ? 'spread.used' : 'spread.unused', { name: spread.name }, now);
    return ok(null);
  });
}

/** Puts a spread away, or takes it back. */
export function archiveSpread(app: App, viewer: Pick<Viewer, 'name'>, id: string, archived: boolean): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const spread = await lock(tx, id);
    if ((spread.archivedAt !== null) === archived) return ok(null);
    spread.archivedAt = archived ? now : null;
    await tx.save(spread);
    await noteOfClient(tx, viewer, spread.clientId, archived ? 'spread.archived' : 'spread.restored', { name: spread.name }, now);
    return ok(null);
  });
}

const lock = (tx: Tx, id: string): Promise<Spread> => tx.findOneOrFail(Spread, { where: { id }, lock: { mode: 'pessimistic_write' } });

const said = ({ name, formatId, lines }: SpreadBody): Pick<Spread, 'name' | 'formatId' | 'lines'> => ({
  name: name.trim(),
  formatId,
  lines: lines.map((line) => ({
    ...line,
    name: line.name.trim(),
    change: line.change.trim(),
    callToAction: line.callToAction.trim(),
    obstacle: line.obstacle.trim(),
    offset: { count: line.offset.count, unit: line.offset.unit },
    doers: line.doers.map(({ skill, personId }) => ({ skill, personId })),
  })),
});

/** What was chosen before may stay, also where it is offered no more. */
async function refusedFor(tx: Tx, clientId: string, body: SpreadBody, before: readonly SpreadLine[]): Promise<Refused | null> {
  const { lines } = body;
  if (new Set(lines.map(({ key }) => key)).size < lines.length) return { code: 'spread.line_twice' };
  const kept = (of: (line: SpreadLine) => string | null) => before.flatMap((line) => of(line) ?? []);
  const isMissing = async (sql: string, ids: readonly (string | null)[], also: readonly string[] = []) => {
    const wanted = [...new Set(ids.flatMap((id) => id ?? []))].filter((id) => !also.includes(id));
    const found = await rowsOf(tx, sql, [wanted, clientId]);
    return found.length < wanted.length;
  };
  const ofClient = 'id = any($1) and client_id = $2 and archived_at is null';
  const lineIds = (of: (line: SpreadLine) => string | null) => lines.map(of);
  if (
    await isMissing(
      `select 1 from channels where ${ofClient}`,
      lineIds((line) => line.channelId),
      kept((line) => line.channelId),
    )
  )
    return { code: 'channel.unknown' };
  const [formats, routes] = ['formats', 'routes'].map(
    (table) => `select 1 from ${table} where id = any($1) and archived_at is null and $2::uuid is not null`,
  ) as [string, string];
  if (await isMissing(formats, [body.formatId])) return { code: 'format.unknown' };
  if (
    await isMissing(
      routes,
      lineIds((line) => line.routeId),
      kept((line) => line.routeId),
    )
  )
    return { code: 'route.unknown' };
  const guidelines = 'select 1 from guidelines where id = any($1) and (client_id = $2 or client_id is null) and archived_at is null';
  if (
    await isMissing(
      guidelines,
      lineIds((line) => line.guidelineId),
      kept((line) => line.guidelineId),
    )
  )
    return { code: 'guideline.unknown' };
  return refusedDoers(tx, clientId, lines, before);
}

async function refusedDoers(
  tx: Tx,
  clientId: string,
  lines: readonly SpreadLine[],
  before: readonly SpreadLine[],
): Promise<Refused | null> {
  const pair = ({ skill, personId }: SpreadLine['doers'][number]) => `${personId} ${skill}`;
  const known = new Set(before.flatMap((line) => line.doers.map(pair)));
  const asked = lines.flatMap((line) => line.doers).filter((doer) => !known.has(pair(doer)));
  if (asked.length === 0) return null;
  const people = await rowsOf<{ id: string; skills: Record<string, number>; barred: boolean }>(
    tx,
    `select p.id, p.skills, coalesce(o.relation = 'barred', false) as barred
     from people p left join client_people o on o.person_id = p.id and o.client_id = $2 where p.id = any($1) and p.active`,
    [asked.map(({ personId }) => personId), clientId],
  );
  for (const { skill, personId } of asked) {
    const person = people.find(({ id }) => id === personId);
    if (!person) return { code: 'person.unknown' };
    if (person.barred) return { code: 'person.barred' };
    if (!((person.skills[skill] ?? 0) > 0)) return { code: 'person.unskilled' };
  }
  return null;
}

/** Skills got other names, all at once, so that two that change places do not become one. */
export async function renameSkillsOfSpreads(tx: Tx, from: readonly string[], to: readonly string[]): Promise<void> {
  const named = new Map(from.map((name, index) => [name, to[index] ?? name]));
  const spreads = await tx.find(Spread, { lock: { mode: 'pessimistic_write' }, order: { id: 'ASC' } });
  for (const spread of spreads) {
    const lines = spread.lines.map((line) => ({
      ...line,
      doers: line.doers.map((doer) => ({ ...doer, skill: named.get(doer.skill) ?? doer.skill })),
    }));
    if (JSON.stringify(lines) !== JSON.stringify(spread.lines)) await tx.save(Object.assign(spread, { lines }));
  }
}
