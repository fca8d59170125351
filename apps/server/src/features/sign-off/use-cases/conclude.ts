import { dayInWords, getDay, type InstantText } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tell, tellManagers, tellOutside, untell } from '../../notices/index.js';
import { finishStep, openRound, openSignOffStep, stepKey, stepsOf, type Piece } from '../../production/index.js';
import type { Packet, PacketItem } from '../entities/packet.entity.js';

interface Concluded {
  readonly packet: Packet;
  readonly item: PacketItem;
  readonly piece: Piece;
  readonly actor: string;
  readonly remark: string;
}

/** What follows when a piece's item in a packet is decided: the step ends, the next round begins or the managers hear of the approval. */
export async function conclude(app: App, tx: Tx, { packet, item, piece, actor, remark }: Concluded, now: InstantText): Promise<void> {
  const step = openSignOffStep(await stepsOf(tx, piece.id));
  if (step) await finishStep(tx, step, now);
  const path = `/pieces/${piece.id}`;
  const { clientId } = piece;
  if (item.outcome === 'changes') {
    const [first] = await openRound(tx, piece);
    const agreed = await roundsAgreed(tx, piece);
    const beyond = piece.round > agreed ? ', beyond what was agreed' : '';
    const heading = `Changes asked: ${piece.title}`;
    await tellManagers(app, tx, {
      clientId,
      pieceId: piece.id,
      heading,
      text: `${actor} asks for changes to “${piece.title}”: ${remark} Round ${piece.round} of ${agreed} agreed begins${beyond}.`,
      path,
    });
    if (first?.doerId)
      await tell(app, tx, first.doerId, {
        clientId,
        heading,
        text: `${actor} asks for changes to “${piece.title}”: ${remark}`,
        path,
        key: stepKey(first),
      });
  } else
    await tellManagers(app, tx, {
      clientId,
      pieceId: piece.id,
      heading: `Approved: ${piece.title}`,
      text: `${actor} approved “${piece.title}”. It can be placed on the calendar.`,
      path,
    });
  const [open] = await rowsOf(tx, 'select 1 from packet_items where packet_id = $1 and outcome is null limit 1', [packet.id]);
  if (open) return;
  packet.closedAt = now;
  await tx.save(packet);
  await untell(tx, `past-due:${packet.id}`);
}

/** The rounds agreed for a piece: its route's, else the client's. */
export async function roundsAgreed(tx: Tx, piece: Piece): Promise<number> {
  const [row] = await rowsOf<{ agreed: number }>(
    tx,
    'select coalesce(r.rounds_allowed, c.rounds_agreed) as agreed from clients c, routes r where c.id = $1 and r.id = $2',
    [piece.clientId, piece.routeId],
  );
  return row?.agreed ?? 2;
}

/** Asks contacts for their word on a packet: by mail, with their link. */
export async function askNext(app: App, tx: Tx, packet: Packet, contactIds: readonly string[]): Promise<void> {
  const contacts = await rowsOf<{ id: string; name: string; email: string; link_generation: number; pieces: number }>(
    tx,
    `select x.id, x.name, x.email, x.link_generation, (select count(*) from packet_items i where i.packet_id = $2 and i.outcome is null) as pieces
     from contacts x where x.id = any($1) and x.archived_at is null order by x.position, x.id`,
    [contactIds, packet.id],
  );
  for (const contact of contacts)
    await tellOutside(
      tx,
      contact,
      `For your sign-off: ${packet.title}`,
      [
        `${contact.pieces === 1 ? 'One piece is' : `${contact.pieces} pieces are`} ready for you. Please answer by ${dayInWords(getDay(packet.dueOn))}.`,
        ...(packet.message ? [packet.message] : []),
      ],
      { text: 'Look and decide', address: app.links.address('room', contact.id, contact.link_generation) },
    );
}
