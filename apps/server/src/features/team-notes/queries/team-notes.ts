import type { TeamMateShape, TeamNoteShape, TeamNotesShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';

/** Who sees a piece: leads, the client's people, whoever has a step of it. Nobody who must not work for the client. */
export const teamOf = (tx: Tx, pieceId: string): Promise<TeamMateShape[]> =>
  rowsOf<TeamMateShape>(
    tx,
    `select d.id as "personId", d.name from people d cross join pieces p
       left join client_people o on o.person_id = d.id and o.client_id = p.client_id
     where p.id = $1 and d.active and o.relation is distinct from 'barred'
       and (d.role = 'lead' or (o.relation = 'own' and d.role <> 'freelance') or exists (select 1 from steps s where s.piece_id = p.id and s.doer_id = d.id))
     order by d.name`,
    [pieceId],
  );

/** What the team wrote on a piece, oldest first, and whom it can be addressed to. */
export async function teamNotesOf(app: App, viewer: Viewer, pieceId: string): Promise<TeamNotesShape> {
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  const notes = await app.read<Omit<TeamNoteShape, 'canRemove'>>(
    `select n.id, n.kind, a.name as "authorName", n.text, n.created_at as "createdAt", n.edited_at as "editedAt", n.author_id = $2 as "isMine", n.version,
       coalesce((select jsonb_agg(d.name order by d.name) from people d where d.id = any(n.mention_ids)), '[]') as mentioned,
       coalesce((select jsonb_agg(jsonb_build_object('assetId', f.id, 'name', f.name, 'mime', f.mime, 'bytes', f.bytes, 'width', f.width, 'height', f.height)
         order by array_position(n.asset_ids, f.id)) from assets f where f.id = any(n.asset_ids)), '[]') as files
     from team_notes n join people a on a.id = n.author_id where n.piece_id = $1 and n.removed_at is null order by n.created_at, n.id`,
    [pieceId, viewer.personId],
  );
  return {
    notes: notes.map((note) => ({ ...note, canRemove: note.isMine || manages })),
    team: (await teamOf(app.manager, pieceId)).filter((mate) => mate.personId !== viewer.personId),
  };
}
