import { countWorkingDays, dayIn, dayInWords, fail, getDay, ok, type Result } from '@zesting/core';
import type { ChaseShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { queueMail } from '../../../platform/mail/mail.js';
import { awaitedOf, hello } from '../../notices/index.js';
import { clientKey, getDoer, loadCalendars } from '../../planning/index.js';
import { askedBy } from '../decisions.js';
import { Packet } from '../entities/packet.entity.js';

interface ContactRow {
  id: string;
  name: string;
  email: string;
  link_generation: number;
}

async function receiversOf(tx: Tx, packet: Packet): Promise<ContactRow[]> {
  const { policy, approverIds, goneIds = [] } = await askedBy(tx, packet, 0);
  const waiting = await awaitedOf(tx, [{ id: packet.id, policy, approver_ids: [...approverIds], gone_ids: [...goneIds] }]);
  return rowsOf<ContactRow>(
    tx,
    'select id, name, email, link_generation from contacts where id = any($1) and archived_at is null order by position, name',
    [waiting.get(packet.id) ?? []],
  );
}

/** Who is to be chased about a packet, and the words ready to be sent. */
export async function chaseOf(app: App, viewer: Viewer, packetId: string): Promise<ChaseShape> {
  const tx = app.manager;
  const packet = await tx.findOneByOrFail(Packet, { id: packetId });
  const receivers = await receiversOf(tx, packet);
  const book = await loadCalendars(tx, app.clock.now());
  const client = getDoer(book, clientKey(packet.clientId));
  const titles = await rowsOf<{ title: string }>(
    tx,
    'select p.title from packet_items i join pieces p on p.id = i.piece_id where i.packet_id = $1 and i.outcome is null order by p.number',
    [packetId],
  );
  const sentOn = dayIn(packet.sentAt, client.zone);
  const days = countWorkingDays(client.calendar, sentOn, client.todayOn) - 1;
  const due = getDay(packet.dueOn);
  const names = titles.map(({ title }) => `“${title}”`).join(', ');
  const late = due < client.todayOn ? `The answer was due on ${dayInWords(due)}.` : `Could you answer by ${dayInWords(due)}?`;
  return {
    receivers: receivers.map(({ name, email }) => ({ name, email })),
    subject: `Your word on ${packet.title}`,
    text: `${names} ${titles.length === 1 ? 'has' : 'have'} been with you for ${Math.max(0, days)} working ${days === 1 ? 'day' : 'days'}. ${late} Without it we cannot hold the dates.\n\nBest wishes,\n${viewer.name}`,
  };
}

/** Sends the words to everybody whose answer is awaited, each with their own link. */
export function chase(
  app: App,
  viewer: Viewer,
  packetId: string,
  text: string,
): Promise<Result<number, { code: 'packet.nobody_to_chase' }>> {
  return app.write<number, { code: 'packet.nobody_to_chase' }>(async (tx, now) => {
    const packet = await tx.findOneOrFail(Packet, { where: { id: packetId }, lock: { mode: 'pessimistic_write' } });
    const receivers = packet.closedAt === null ? await receiversOf(tx, packet) : [];
    if (receivers.length === 0) return fail({ code: 'packet.nobody_to_chase' });
    for (const contact of receivers)
      await queueMail(tx, {
        to: contact.email,
        subject: `Your word on ${packet.title}`,
        paragraphs: [hello(contact.name), ...text.split(/\n{2,}/)],
        links: [{ text: 'Look and decide', address: app.links.address('room', contact.id, contact.link_generation) }],
      });
    packet.chasedAt = now;
    await tx.save(packet);
    await recordActivity(tx, {
      clientId: packet.clientId,
      thing: 'packet',
      thingId: packetId,
      verb: 'packet.chased',
      actor: viewer.name,
      detail: { packet: packet.title, to: receivers.map((contact) => contact.name).join(', ') },
      at: now,
    });
    return ok(receivers.length);
  });
}
