import { askAddressOf, viewOf } from './room-view.js';
import {
  awaited,
  copyOnChannel,
  dayIn,
  EMPTY_CHANNEL_PART,
  laidOutOn,
  type Content,
  type DecisionFact,
  type PartDigests,
  type FormatText,
} from '@zesting/core';
import type { RoomPacketShape, RoomRulesShape, RoomPieceShape, RoomRemarkShape, RoomShape } from '@zesting/contract';
import { VISITED } from '../../../platform/access/visited.js';
import type { App } from '../../../platform/app.js';
import { interviewsFor } from '../../interviews/index.js';
import { deliveriesFor } from '../../material/index.js';
import { clientRemarks, threadsBeside, type ClientRemark } from '../../remarks/index.js';
import { channelShapes, fileFacts, mediumShape, partShape, type FileFacts } from '../../production/index.js';
import { decisionFacts, goneFrom, toAsked, type AskedRow } from '../../planning/index.js';

interface ItemRow {
  packet_id: string;
  piece_id: string;
  version_id: string;
  title: string;
  format_name: string;
  format_texts: readonly FormatText[];
  round: number;
  rounds_agreed: number;
  outcome: 'approved' | 'changes' | null;
  mine: 'approve' | 'changes' | null;
  content: Content;
  /** what was thought of besides, as the piece has it now */
  others: Readonly<Record<string, readonly string[]>>;
  channels: { id: string; name: string; kind: string; rules: RoomRulesShape; on: string | null; at: string | null }[];
  said: RoomRemarkShape[];
  digests: PartDigests;
  decisions: DecisionFact[];
}

interface HeadRow {
  client_id: string;
  can_ask: boolean;
  can_view: boolean;
  email: string;
  feed_pencilled: boolean;
}

/** The client's room for one contact: packets out first, each piece as it will appear. No people, no load, no other client. */
export async function roomOf(app: App, contactId: string): Promise<RoomShape> {
  const [head] = await app.read<Omit<RoomShape, 'packets' | 'askAddress' | 'interviews' | 'deliveries' | 'view'> & HeadRow>(
    `select x.can_ask, x.can_view, x.email, c.feed_pencilled, x.id as "contactId", x.name as "contactName", x.can_sign_off as "canDecide", c.zone, c.id as client_id,
       ${VISITED}
     from contacts x join clients c on c.id = x.client_id cross join agencies a where x.id = $1`,
    [contactId],
  );
  if (!head) throw new Error('the contact went away');
  const { client_id: clientId, can_ask, can_view, email, feed_pencilled, ...rest } = head;
  const packets = await app.read<PacketRow>(
    `select id, title, message, due_on, closed_at is not null as closed, policy, approver_ids, ${goneFrom('approver_ids')} as gone_ids from packets
     where client_id = $1 and $2 = any(approver_ids) order by (closed_at is not null), case when closed_at is null then due_on end, sent_at desc limit 20`,
    [clientId, contactId],
  );
  const items = await itemsOf(
    app,
    contactId,
    packets.map((packet) => packet.id),
  );
  const said = await clientRemarks(
    app,
    items.map((item) => item.piece_id),
  );
  const files = await fileFacts(
    app,
    items.flatMap(({ content }) => content.shared.media.map(({ assetId }) => assetId)),
  );
  const today = dayIn(app.clock.now(), head.zone);
  return {
    ...rest,
    askAddress: can_ask ? await askAddressOf(app, clientId) : null,
    interviews: await interviewsFor(app, contactId),
    deliveries: await deliveriesFor(app, contactId),
    view: can_view ? await viewOf(app, clientId, email, feed_pencilled, today) : null,
    packets: packets.map<RoomPacketShape>((packet) => ({
      id: packet.id,
      title: packet.title,
      message: packet.message,
      dueOn: packet.due_on,
      isClosed: packet.closed,
      isPastDue: !packet.closed && packet.due_on < today,
      pieces: items
        .filter((item) => item.packet_id === packet.id)
        .map((item) => ({ ...pieceShape(item, said, files), isAsked: isAsked(item, packet, contactId) })),
    })),
  };
}

interface PacketRow extends AskedRow {
  id: string;
  title: string;
  message: string;
  due_on: string;
  closed: boolean;
}

/** Whether the contact's word on a piece is awaited now; it may also be given again while the piece is open. */
const isAsked = (item: ItemRow, packet: PacketRow, contactId: string): boolean =>
  item.mine !== null ||
  awaited(toAsked(packet, item.round), item.decisions, [item.digests.shared, ...Object.values(item.digests.channels)]).includes(contactId);

const itemsOf = (app: App, contactId: string, packetIds: readonly string[]): Promise<ItemRow[]> =>
  app.read<ItemRow>(
    `select i.packet_id, i.piece_id, i.version_id, p.title, f.name as format_name, f.texts as format_texts, i.round, coalesce(u.rounds_allowed, c.rounds_agreed) as rounds_agreed, i.outcome, v.content, v.digests, coalesce(p.content -> 'shared' -> 'others', '{}') as others,
       (select d.verdict from decisions d where d.packet_id = i.packet_id and d.piece_id = i.piece_id and d.contact_id = $2 order by d.sequence desc limit 1) as mine,
       coalesce((select jsonb_agg(jsonb_build_object('id', h.id, 'name', h.name, 'kind', h.kind, 'rules', ${channelShapes('h')}, 'on', l.on_day, 'at', to_char(l.at_time, 'HH24:MI')) order by h.position)
         from channels h left join lateral (select l.on_day, l.at_time from placements l where l.channel_id = h.id and l.piece_id = p.id and not l.cancelled
           order by l.publish_at nulls last, l.id limit 1) l on true
         where v.content -> 'channels' ? h.id::text), '[]') as channels,
       coalesce((select jsonb_agg(jsonb_build_object('contactName', x.name, 'verdict', d.verdict, 'remark', d.remark, 'decidedAt', d.decided_at) order by d.sequence)
         from decisions d join contacts x on x.id = d.contact_id where d.piece_id = i.piece_id), '[]') as said,
       ${decisionFacts('i.piece_id')} as decisions
     from packet_items i join pieces p on p.id = i.piece_id join clients c on c.id = p.client_id join routes u on u.id = p.route_id join formats f on f.id = p.format_id join versions v on v.id = i.version_id
     where i.packet_id = any($1) order by (i.outcome is not null), p.number`,
    [packetIds, contactId],
  );

/** Wordings to choose from beside one that is there. */
const othersThan = (text: string, wordings: readonly string[] = []): string[] => wordings.filter((wording) => wording !== text.trim());

function pieceShape(item: ItemRow, said: readonly ClientRemark[], files: ReadonlyMap<string, FileFacts>): Omit<RoomPieceShape, 'isAsked'> {
  return {
    packetId: item.packet_id,
    pieceId: item.piece_id,
    versionId: item.version_id,
    title: item.title,
    formatName: item.format_name,
    round: item.round,
    roundsAgreed: item.rounds_agreed,
    outcome: item.outcome,
    mine: item.mine,
    media: item.content.shared.media.filter(({ assetId }) => files.has(assetId)).map((medium) => mediumShape(medium, files)),
    disclosure: item.content.shared.disclosure,
    texts: (item.content.shared.texts ?? []).map(({ key, name, text }) => ({
      key,
      name,
      text,
      isSlides: item.format_texts.some((asked) => asked.key === key && asked.isSlides === true),
      others: othersThan(text, item.others[key]),
    })),
    channels: item.channels.map(({ id, ...channel }) => {
      const part = item.content.channels[id] ?? EMPTY_CHANNEL_PART;
      const laidOut = laidOutOn(item.content, id);
      const copy = laidOut ?? copyOnChannel(item.content, id);
      return { ...channel, ...partShape(part), copy, copyOf: part.copy.trim() ? id : null, isLaidOut: laidOut !== null };
    }),
    said: item.said,
    ...threadsBeside(
      said.filter(({ pieceId }) => pieceId === item.piece_id),
      item.content,
      item.round,
    ),
  };
}

/** Whether a file is in a version that was sent to this contact. */
export async function isSentTo(app: App, contactId: string, assetId: string): Promise<boolean> {
  const rows = await app.read(
    `select 1 from packets k join packet_items i on i.packet_id = k.id join versions v on v.id = i.version_id
     where $1 = any(k.approver_ids) and v.content -> 'shared' -> 'media' @> jsonb_build_array(jsonb_build_object('assetId', $2::text)) limit 1`,
    [contactId, assetId],
  );
  return rows.length > 0;
}

/** Whether every picture of a version can be shown: what nobody can see cannot be approved. */
export async function picturesSeen(app: App, versionId: string): Promise<boolean> {
  const [row] = await app.read<{ seen: boolean }>(
    `select not exists (select 1 from versions v, jsonb_array_elements(v.content -> 'shared' -> 'media') m
       join assets a on a.id = (m ->> 'assetId')::uuid and a.mime like 'image/%'
       where v.id = $1 and not exists (select 1 from asset_sizes z where z.asset_id = a.id)) as seen`,
    [versionId],
  );
  return row?.seen ?? false;
}
