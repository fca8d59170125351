import type { GuidelineShape, GuidelinesShape, PieceGuidelinesShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';

const COLUMNS = `g.id, g.title, g.text, g.client_id as "clientId", g.format_id as "formatId", f.name as "formatName", g.channel_kind as "channelKind", g.skill,
  g.edited_at as "editedAt", e.name as "editedBy", g.version,
  (select coalesce(jsonb_agg(jsonb_build_object('assetId', a.id, 'name', a.name) order by a.created_at, a.id), '[]') from assets a where a.guideline_id = g.id) as pictures`;
const FROM = 'from guidelines g join people e on e.id = g.edited_by left join formats f on f.id = g.format_id';

type Columns = Omit<GuidelineShape, 'canEdit'>;

const shown = (viewer: Viewer, rows: readonly Columns[]): GuidelineShape[] =>
  rows.map((row) => ({
    ...row,
    canEdit: viewer.role === 'lead' || (viewer.role === 'manager' && row.clientId !== null && viewer.clientIds.includes(row.clientId)),
  }));

/** All guidelines that hold for the viewer's clients, those for every client first. */
export async function guidelinesOf(app: App, viewer: Viewer, clientId: string | undefined): Promise<GuidelinesShape> {
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  const rows = await app.read<Columns>(
    `select ${COLUMNS} ${FROM} left join clients c on c.id = g.client_id where g.archived_at is null and (g.client_id is null or g.client_id = any($1))
     order by c.name nulls first, lower(g.title), g.id`,
    [clientIds],
  );
  const archived = await app.read<{ id: string; title: string }>(
    `select g.id, g.title from guidelines g where g.archived_at is not null and (g.client_id = any($1) or (g.client_id is null and $2))
     order by g.archived_at desc, g.id limit 200`,
    [clientIds, viewer.role === 'lead'],
  );
  return { guidelines: shown(viewer, rows), archived };
}

/** SQL: whether a guideline `g` holds for a piece `p`. @param skill of the step that is asked about; without one, of any step of the piece */
export const holdsFor = (skill?: string): string =>
  `g.archived_at is null and (g.client_id is null or g.client_id = p.client_id) and (g.format_id is null or g.format_id = p.format_id)
   and (g.channel_kind is null or exists (select 1 from placements l join channels h on h.id = l.channel_id
     where l.piece_id = p.id and not l.cancelled and h.kind = g.channel_kind))
   and (g.skill is null or ${skill === undefined ? 'exists (select 1 from steps x where x.piece_id = p.id and x.skill = g.skill)' : `g.skill = ${skill}`})`;

/** What holds for a piece, and what a spread named for it: what is said most narrowly comes first. */
export async function guidelinesForPiece(app: App, viewer: Viewer, pieceId: string): Promise<PieceGuidelinesShape> {
  const rows = await app.read<Columns>(
    `select ${COLUMNS} ${FROM} join pieces p on p.id = $1 left join spin_offs o on o.piece_id = p.id and o.guideline_id = g.id
     where (${holdsFor()}) or (o.piece_id is not null and g.archived_at is null)
     order by o.piece_id is null, num_nonnulls(g.client_id, g.format_id, g.channel_kind, g.skill) desc, lower(g.title), g.id`,
    [pieceId],
  );
  return { guidelines: shown(viewer, rows) };
}
