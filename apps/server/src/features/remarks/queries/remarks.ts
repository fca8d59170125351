import { followPlace, placeWords, type Content } from '@zesting/core';
import type { RemarkReplyShape, RemarkShape, RemarksShape, RoomThreadShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { teamOf } from '../../team-notes/index.js';
import { mayWriteTo } from '../use-cases/mentions.js';

const MENTIONED = (ids: string) => `coalesce((select jsonb_agg(d.name order by d.name) from people d where d.id = any(${ids})), '[]')`;

interface ReplyRow extends Omit<RemarkReplyShape, 'canRemove'> {
  authorId: string | null;
}

interface Row extends Omit<RemarkShape, 'canRemove' | 'replies'> {
  authorId: string | null;
  replies: ReplyRow[];
}

/** All that was said about a piece, by contacts and by the team, with what was said to it. */
export async function remarksOf(app: App, viewer: Viewer, pieceId: string): Promise<RemarksShape> {
  const rows = await app.read<Row>(
    `select m.id, coalesce(x.name, a.name) as "authorName", m.contact_id is not null as "isContact", m.author_id as "authorId", m.audience, m.round, m.text, m.place,
       m.state, m.answer, m.settled_by as "settledBy", m.settled_at as "settledAt", m.created_at as "createdAt", ${MENTIONED('m.mention_ids')} as mentioned,
       coalesce((select jsonb_agg(jsonb_build_object('id', r.id, 'authorName', coalesce(rx.name, ra.name), 'isContact', r.contact_id is not null, 'authorId', r.author_id,
           'audience', r.audience, 'text', r.text, 'mentioned', ${MENTIONED('r.mention_ids')}, 'createdAt', r.created_at) order by r.created_at, r.id)
         from remark_replies r left join contacts rx on rx.id = r.contact_id left join people ra on ra.id = r.author_id
         where r.remark_id = m.id and r.removed_at is null), '[]') as replies
     from remarks m left join contacts x on x.id = m.contact_id left join people a on a.id = m.author_id
     where m.piece_id = $1 and m.removed_at is null order by m.round desc, m.created_at, m.position, m.id`,
    [pieceId],
  );
  const canWriteToClient = mayWriteTo(viewer, 'client');
  const removable = <T extends { authorId: string | null }>({ authorId, ...rest }: T) => ({
    ...rest,
    canRemove: authorId !== null && (authorId === viewer.personId || canWriteToClient),
  });
  return {
    remarks: rows.map(({ replies, ...row }) => ({ ...removable(row), replies: replies.map(removable) })),
    team: (await teamOf(app.manager, { pieceId })).filter(({ personId }) => personId !== viewer.personId),
    canWriteToClient,
  };
}

/** A remark that contacts read, as it is kept. */
export interface ClientRemark extends Omit<RoomThreadShape, 'where'> {
  readonly pieceId: string;
  readonly isContact: boolean;
}

/** What contacts may read of what was said about pieces: their own remarks, and what the agency wrote to them. */
export const clientRemarks = (app: App, pieceIds: readonly string[]): Promise<ClientRemark[]> =>
  app.read<ClientRemark>(
    `select m.id, m.piece_id as "pieceId", coalesce(x.name, a.name) as "authorName", m.contact_id is not null as "isContact", m.text, m.place, m.round, m.state, m.answer,
       coalesce((select jsonb_agg(jsonb_build_object('authorName', coalesce(rx.name, ra.name), 'isContact', r.contact_id is not null, 'text', r.text, 'createdAt', r.created_at) order by r.created_at, r.id)
         from remark_replies r left join contacts rx on rx.id = r.contact_id left join people ra on ra.id = r.author_id
         where r.remark_id = m.id and r.audience = 'client' and r.removed_at is null), '[]') as replies
     from remarks m left join contacts x on x.id = m.contact_id left join people a on a.id = m.author_id
     where m.piece_id = any($1) and m.audience = 'client' and m.removed_at is null order by m.round, m.created_at, m.position, m.id`,
    [pieceIds],
  );

/**
 * What contacts read beside a version: what was asked for in earlier rounds, and what the agency wrote to them. A place is told as it is in
 * this version; what the agency spoke of may have stood in a text that was never sent.
 */
export function threadsBeside(
  remarks: readonly ClientRemark[],
  content: Content,
  round: number,
): { remarks: RoomThreadShape[]; notes: RoomThreadShape[] } {
  const thread = ({ isContact, pieceId: _, ...remark }: ClientRemark): RoomThreadShape => {
    const place = remark.place && followPlace(remark.place, content).place;
    const meant = isContact ? remark.place : place;
    // what the agency wrote is answered by managers, in replies: how the team ticked it off stays with the team
    return { ...remark, answer: isContact ? remark.answer : '', where: meant ? placeWords(meant) : '', place };
  };
  return {
    remarks: remarks.filter(({ isContact, ...remark }) => isContact && remark.round < round).map(thread),
    notes: remarks
      .filter(({ isContact, ...remark }) => !isContact && (remark.round === round || (remark.round < round && remark.state === 'open')))
      .map(thread),
  };
}
