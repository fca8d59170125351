import type { TeamMateShape, TeamNoteShape, TeamNotesShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import type { NotedThing } from '../use-cases/write-note.js';

/**
 * Who sees a piece: leads, the client's people, whoever has a step of it; or an idea: those who manage its client, and of one for no client
 * all who manage. Nobody who must not work for the client.
 */
export const teamOf = (tx: Tx, of: NotedThing): Promise<TeamMateShape[]> =>
  'pieceId' in of
    ? rowsOf<TeamMateShape>(
        tx,
        `select d.id as "personId", d.name from people d cross join pieces p
           left join client_people o on o.person_id = d.id and o.client_id = p.client_id
         where p.id = $1 and d.active and o.relation is distinct from 'barred'
           and (d.role = 'lead' or (o.relation = 'own' and d.role <> 'freelance') or exists (select 1 from steps s where s.piece_id = p.id and (s.doer_id = d.id or s.with_id = d.id)))
         order by d.name`,
        [of.pieceId],
      )
    : rowsOf<TeamMateShape>(
        tx,
        `select d.id as "personId", d.name from people d cross join ideas i
           left join client_people o on o.person_id = d.id and o.client_id = i.client_id
         where i.id = $1 and d.active and (d.role = 'lead' or (d.role = 'manager' and (i.client_id is null or o.relation = 'own')))
         order by d.name`,
        [of.ideaId],
      );

/** What the team wrote on a piece or an idea, oldest first, and whom it can be addressed to. */
export async function teamNotesOf(app: App, viewer: Viewer, of: NotedThing): Promise<TeamNotesShape> {
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  const notes = await app.read<Omit<TeamNoteShape, 'canRemove'>>(
    `select n.id, n.kind, a.name as "authorName", n.text, n.created_at as "createdAt", n.edited_at as "editedAt", n.author_id = $2 as "isMine", n.version,
       coalesce((select jsonb_agg(d.name order by d.name) from people d where d.id = any(n.mention_ids)), '[]') as mentioned,
       coalesce((select jsonb_agg(jsonb_build_object('assetId', f.id, 'name', f.name, 'mime', f.mime, 'bytes', f.bytes, 'width', f.width, 'height', f.height)
         order by array_position(n.asset_ids, f.id)) from assets f where f.id = any(n.asset_ids)), '[]') as files
     from team_notes n join people a on a.id = n.author_id where ${'pieceId' in of ? 'n.piece_id' : 'n.idea_id'} = $1 and n.removed_at is null order by n.created_at, n.id`,
    ['pieceId' in of ? of.pieceId : of.ideaId, viewer.personId],
  );
  return {
    notes: notes.map((note) => ({ ...note, canRemove: note.isMine || manages })),
    team: (await teamOf(app.manager, of)).filter((mate) => mate.personId !== viewer.personId),
  };
}
