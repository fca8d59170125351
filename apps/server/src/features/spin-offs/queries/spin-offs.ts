import { coverageOf, factsOf, factState, FACTS, type Fact, type Facts } from '@zesting/core';
import type {
  CoverageShape,
  SpinOffRowShape,
  SpinOffsShape,
  SpinOffSourceShape,
  SpinOffTreeShape,
  TreeSourceShape,
} from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { Piece } from '../../production/index.js';
import { handedTo, markOf } from '../adapting.js';
import { SpinOff } from '../entities/spin-off.entity.js';
import { offersFor } from './spreads.js';

interface OutputRow extends SpinOffRowShape {
  readonly sourceId: string;
}

/** SQL: whether the viewer `$2` of the role `$3` may open the piece `p`. Freelancers may where they have a step. */
const MAY_OPEN = "($3 <> 'freelance' or exists (select 1 from steps x where x.piece_id = p.id and (x.doer_id = $2 or x.with_id = $2)))";

/** What was made from some pieces, in the order of their days; those without one come last. */
const outputsOf = (app: App, viewer: Viewer, sourceIds: readonly string[]): Promise<OutputRow[]> =>
  app.read<OutputRow>(
    `select s.source_id as "sourceId", p.id as "pieceId", p.number, p.title, f.name as "formatName", p.stage, p.danger, p.aim_on as "aimOn", p.shelved, s.name,
       s.from_second as "fromSecond", s.to_second as "toSecond", s.stale,
       coalesce((select jsonb_agg(jsonb_build_object('channelName', h.name, 'on', l.on_day, 'at', to_char(l.at_time, 'HH24:MI'), 'state', l.state, 'address', l.out_address)
         order by l.publish_at nulls last, h.position) from placements l join channels h on h.id = l.channel_id where l.piece_id = p.id and not l.cancelled), '[]') as placements,
       (select count(*) from spin_offs o where o.source_id = p.id) as outputs
     from spin_offs s join pieces p on p.id = s.piece_id join formats f on f.id = p.format_id
     where s.source_id = any($1) and ${MAY_OPEN}
     order by (select min(l.publish_at) from placements l where l.piece_id = p.id and not l.cancelled) nulls last, p.number`,
    [sourceIds, viewer.personId, viewer.role],
  );

/**
 * On how many of the chosen channels some sources are seen. Chosen are a source's own channels and those of the spreads that it was made into
 * pieces by; where there is none yet, those of the spreads that are in use for its format.
 */
async function coverages(app: App, sourceIds: readonly string[]): Promise<Map<string, CoverageShape>> {
  const rows = await app.read<{ id: string; own: string[]; spread: string[]; offered: string[]; covered: string[] }>(
    `select p.id, array(select distinct l.channel_id from placements l where l.piece_id = p.id and not l.cancelled) as own,
       array(select distinct (e.line ->> 'channelId')::uuid from spreads s, jsonb_array_elements(s.lines) e (line)
         where s.id in (select o.spread_id from spin_offs o where o.source_id = p.id) and e.line ->> 'channelId' is not null) as spread,
       array(select distinct (e.line ->> 'channelId')::uuid from spreads s, jsonb_array_elements(s.lines) e (line)
         where s.client_id = p.client_id and s.format_id = p.format_id and s.used_since is not null and s.archived_at is null and e.line ->> 'channelId' is not null) as offered,
       array(select distinct l.channel_id from (select p.id union all select o.piece_id from spin_offs o where o.source_id = p.id) e (id)
         join pieces x on x.id = e.id and not x.shelved join placements l on l.piece_id = x.id and not l.cancelled) as covered
     from pieces p where p.id = any($1)`,
    [sourceIds],
  );
  const found = rows.map((row) => {
    const chosen = [...row.own, ...(row.spread.length > 0 ? row.spread : row.offered)];
    return { id: row.id, coverage: coverageOf(chosen, row.covered) };
  });
  const names = await app.read<{ id: string; name: string }>('select id, name from channels where id = any($1) order by position, name', [
    found.flatMap(({ coverage }) => coverage.missing),
  ]);
  const named = (ids: readonly string[]) => names.flatMap(({ id, name }) => (ids.includes(id) ? name : []));
  return new Map(found.map(({ id, coverage }) => [id, { ...coverage, missing: named(coverage.missing) }]));
}

const NO_COVERAGE: CoverageShape = { covered: 0, chosen: 0, missing: [] };

/** What a piece was made from, and what was made from it. */
export async function spinOffsOf(app: App, viewer: Viewer, pieceId: string): Promise<SpinOffsShape> {
  const [source, outputs, coverage, spreads] = await Promise.all([
    sourceOf(app, viewer, pieceId),
    outputsOf(app, viewer, [pieceId]),
    coverages(app, [pieceId]),
    viewer.role === 'lead' || viewer.role === 'manager' ? offersFor(app, pieceId) : [],
  ]);
  return { source, outputs: outputs.map(withoutSource), coverage: coverage.get(pieceId) ?? NO_COVERAGE, spreads };
}

const withoutSource = ({ sourceId: _sourceId, ...row }: OutputRow): SpinOffRowShape => row;

async function sourceOf(app: App, viewer: Viewer, pieceId: string): Promise<SpinOffSourceShape | null> {
  const spinOff = await app.manager.findOneBy(SpinOff, { pieceId });
  if (!spinOff) return null;
  const [output, source] = await Promise.all([
    app.manager.findOneByOrFail(Piece, { id: pieceId }),
    app.manager.findOneByOrFail(Piece, { id: spinOff.sourceId }),
  ]);
  const [reach] = await app.read<{ may: boolean }>(`select ${MAY_OPEN} as may from pieces p where p.id = $1`, [
    source.id,
    viewer.personId,
    viewer.role,
  ]);
  const handed = handedTo(spinOff, source);
  const beside = { output: factsOf(output, Object.keys(spinOff.seen.link)), seen: spinOff.seen, source: handed, anew: spinOff.anew };
  const { name, callToAction, obstacle, fromSecond, toSecond, offset } = spinOff;
  // how it is laid out is told where that is all that differs
  const isLayout = beside.output.laidOut !== undefined && handed.laidOut !== undefined && beside.output.copy === handed.copy;
  const told = (facts: Facts): Facts => (isLayout ? { ...facts, copy: facts.laidOut ?? facts.copy } : facts);
  return {
    pieceId: source.id,
    number: source.number,
    title: source.title,
    canOpen: reach?.may ?? false,
    name,
    callToAction,
    obstacle,
    fromSecond,
    toSecond,
    offset,
    facts: FACTS.map((fact) => ({
      fact,
      state: factState(fact, beside),
      isAnew: spinOff.anew.includes(fact),
      output: inWords(fact, told(beside.output)),
      source: inWords(fact, told(handed)),
      seen: inWords(fact, told(spinOff.seen)),
    })),
    mark: markOf(handed),
  };
}

/** A fact as text: files by their names, tags with their signs. */
function inWords(fact: Fact, facts: Facts): string {
  switch (fact) {
    case 'title':
    case 'copy':
    case 'disclosure':
      return facts[fact];
    case 'purpose':
      return facts.purpose ?? '';
    case 'media':
      return facts.media.map(({ name, alt }) => (alt === '' ? name : `${name}: ${alt}`)).join('\n');
    case 'link':
      return [...new Set(Object.values(facts.link))].filter(Boolean).join('\n');
    case 'tags':
      return [...new Set(Object.values(facts.tags).map((tags) => tags.map((tag) => `#${tag.replace(/^#/, '')}`).join(' ')))]
        .filter(Boolean)
        .join('\n');
  }
}

const PAGE = 40;

interface TreeAsked {
  /** the last source of the page before */
  readonly after: string | undefined;
  /** only those with something that is behind them */
  readonly isBehind: boolean;
}

/**
 * Sources with what was made from them, those last made from first; pieces that a spread is in use for, and nothing was made from yet, stand
 * among them by when they were begun.
 */
export async function treeOf(
  app: App,
  viewer: Viewer,
  clientIds: readonly string[],
  { after, isBehind }: TreeAsked,
): Promise<SpinOffTreeShape> {
  const rows = await app.read<Omit<TreeSourceShape, 'coverage' | 'outputs'>>(
    `with sources as (select source_id as id, max(made_at) as at from spin_offs where client_id = any($1) group by source_id having not $3::boolean or bool_or(cardinality(stale) > 0)
         union all select p.id, p.created_at from pieces p where p.client_id = any($1) and p.list is not null and not $3::boolean
           and exists (select 1 from spreads s where s.client_id = p.client_id and s.format_id = p.format_id and s.used_since is not null and s.archived_at is null)
           and not exists (select 1 from spin_offs o where o.source_id = p.id) and not exists (select 1 from spin_offs o where o.piece_id = p.id))
     select p.id as "pieceId", p.number, p.client_id as "clientId", p.title, f.name as "formatName", p.stage, p.danger, p.aim_on as "aimOn"
     from sources s join pieces p on p.id = s.id join formats f on f.id = p.format_id
     where $2::uuid is null or (s.at, s.id) < (select a.at, a.id from sources a where a.id = $2) order by s.at desc, s.id desc limit ${PAGE + 1}`,
    [clientIds, after ?? null, isBehind],
  );
  const shown = rows.slice(0, PAGE);
  const ids = shown.map(({ pieceId }) => pieceId);
  const [outputs, covered, [stale]] = await Promise.all([
    outputsOf(app, viewer, ids),
    coverages(app, ids),
    app.read<{ count: number }>('select count(*) from spin_offs where client_id = any($1) and cardinality(stale) > 0', [clientIds]),
  ]);
  return {
    sources: shown.map((row) => ({
      ...row,
      coverage: covered.get(row.pieceId) ?? NO_COVERAGE,
      outputs: outputs.filter(({ sourceId }) => sourceId === row.pieceId).map(withoutSource),
    })),
    next: rows.length > PAGE ? (ids.at(-1) ?? null) : null,
    stale: stale?.count ?? 0,
  };
}
