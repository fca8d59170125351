import type { ListEntryBody } from '@zesting/contract';
import { fail, ok, type InstantText, type Result } from '@zesting/core';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { renameSkillsOfGuidelines } from '../../guidelines/index.js';
import { renameSkillsOfPeople, renameSkillsOfTeams } from '../../people/index.js';
import { renameSkillsOfRoutes } from '../../planning/index.js';
import { renameSkillsOfSteps } from '../../production/index.js';
import { renameSkillsOfSpreads } from '../../spin-offs/index.js';
import { TABLES, USED_BY, type ListName } from '../queries/settings.js';
import { Format } from '../entities/format.entity.js';
import { OwnMarkerKind } from '../entities/marker-kind.entity.js';
import { Skill } from '../entities/skill.entity.js';

const ENTITIES = { formats: Format, skills: Skill, markerKinds: OwnMarkerKind } as const;

export type ListFailure = { code: 'agency.entry_twice' | 'agency.entry_unknown' | 'agency.entry_in_use' };

interface Entry {
  id: string;
  name: string;
  archived: boolean;
}

/**
 * Puts one of the agency's lists as it is wanted: order, names, new ones; what is missing is archived, what is there again comes back. A
 * skill's new name is taken over by routes, people and steps, which know skills by name.
 */
export async function putList(
  tx: Tx,
  list: ListName,
  wanted: readonly ListEntryBody[],
  now: InstantText,
): Promise<Result<null, ListFailure>> {
  const names = wanted.map((entry) => entry.name.trim().toLowerCase());
  if (new Set(names).size < names.length || names.includes('')) return fail({ code: 'agency.entry_twice' });
  const entries = await rowsOf<Entry>(
    tx,
    `select id, name, archived_at is not null as archived from ${TABLES[list]} order by id for update`,
  );
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  if (wanted.some((entry) => entry.id !== undefined && !byId.has(entry.id))) return fail({ code: 'agency.entry_unknown' });
  // one that was taken out earlier and is typed again is the same one
  const idOf = (entry: ListEntryBody): string | undefined =>
    entry.id ?? entries.find((other) => other.name.toLowerCase() === entry.name.trim().toLowerCase())?.id;
  const kept = new Set(wanted.flatMap((entry) => idOf(entry) ?? []));
  if (kept.size < wanted.filter((entry) => idOf(entry) !== undefined).length) return fail({ code: 'agency.entry_twice' });
  const away = entries.filter((entry) => !entry.archived && !kept.has(entry.id)).map((entry) => entry.id);
  // a marker keeps the name of its kind, offered or not
  const used =
    list === 'markerKinds' ? [] : await rowsOf(tx, `select 1 from ${TABLES[list]} l where id = any($1) and (${USED_BY[list]}) > 0`, [away]);
  if (used.length > 0) return fail({ code: 'agency.entry_in_use' });
  await tx.query(`update ${TABLES[list]} set archived_at = $2 where id = any($1)`, [away, now]);
  // names are swapped by way of ones that nobody types
  await tx.query(`update ${TABLES[list]} set name = id::text where id = any($1)`, [[...kept]]);
  const renamed: [from: string, to: string][] = [];
  for (const [position, entry] of wanted.entries()) {
    const id = idOf(entry);
    const name = entry.name.trim();
    const before = id && byId.get(id)?.name;
    if (entries.some((other) => other.id !== id && !kept.has(other.id) && other.name.toLowerCase() === name.toLowerCase()))
      return fail({ code: 'agency.entry_twice' });
    const entity = ENTITIES[list];
    if (id) await tx.update(entity, id, { name, position, archivedAt: null });
    else await tx.insert(entity, { name, position });
    if (list === 'skills' && before && before !== name) renamed.push([before, name]);
  }
  if (renamed.length > 0) await renameSkills(tx, renamed);
  return ok(null);
}

/** All at once, so that two that change places do not become one. */
async function renameSkills(tx: Tx, renamed: readonly [from: string, to: string][]): Promise<void> {
  const [from, to] = [renamed.map(([name]) => name), renamed.map(([, name]) => name)];
  await renameSkillsOfSteps(tx, from, to);
  await renameSkillsOfRoutes(tx, from, to);
  await renameSkillsOfPeople(tx, from, to);
  await renameSkillsOfTeams(tx, from, to);
  await renameSkillsOfGuidelines(tx, from, to);
  await renameSkillsOfSpreads(tx, from, to);
}
