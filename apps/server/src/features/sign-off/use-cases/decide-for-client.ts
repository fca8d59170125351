import { addWorkingDays, dayIn, fail, isAllSigned, ok, type Day, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { clientKey, getDoer, loadCalendars, loadSources, replan, signOffOf, type CalendarBook } from '../../planning/index.js';
import { finishStep, freezeVersion, hasContent, lockPiece, openSignOffStep, stepsOf, Version } from '../../production/index.js';
import { appendDecision } from '../decisions.js';
import { allDigests, Packet, PacketItem } from '../entities/packet.entity.js';
import { close } from './decide.js';

type AgencyFailure = {
  code:
    | 'decision.client_decides'
    | 'decision.other_person_decides'
    | 'piece.not_ready_for_client'
    | 'piece.nothing_to_hand_in'
    | 'piece.signed_already';
};

/** The named person approves the content as it stands, on the client's standing authority. Nothing goes to the client. */
export function approveForClient(app: App, viewer: Viewer, pieceId: string): Promise<Result<null, AgencyFailure>> {
  return app.write<null, AgencyFailure>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    const [client] = await rowsOf<{ policy: { kind: string; personId?: string } }>(tx, 'select policy from clients where id = $1', [
      piece.clientId,
    ]);
    if (client?.policy.kind !== 'agency') return fail({ code: 'decision.client_decides' });
    if (client.policy.personId !== viewer.personId) return fail({ code: 'decision.other_person_decides' });
    const [source] = await loadSources(tx, [pieceId]);
    if (!source || source.in_packet || source.steps.some((step) => step.kind !== 'sign_off' && step.finished_on === null))
      return fail({ code: 'piece.not_ready_for_client' });
    if (!hasContent(piece.content)) return fail({ code: 'piece.nothing_to_hand_in' });
    if (isAllSigned(signOffOf(source))) return fail({ code: 'piece.signed_already' });
    const version = await freezeVersion(tx, piece, viewer.personId, now);
    await appendDecision(
      tx,
      {
        clientId: piece.clientId,
        packetId: null,
        pieceId,
        versionId: version.id,
        round: piece.round,
        contactId: null,
        verdict: 'approve',
        digests: allDigests(version.digests),
        remark: '',
        onBehalf: { personId: viewer.personId, name: viewer.name, how: 'on the client’s standing authority' },
      },
      now,
    );
    const step = openSignOffStep(await stepsOf(tx, pieceId));
    if (step) await finishStep(tx, step, now);
    await replan(tx, [pieceId], now);
    return ok(null);
  });
}

type SilenceFailure = { code: 'packet.silence_not_agreed' | 'packet.silence_too_soon' | 'decision.closed' };

/** From which day of the client's "no answer" may be recorded for a packet: the day after so many of its working days; null: never. */
export function silenceFrom(packet: Pick<Packet, 'policy' | 'clientId' | 'sentAt'>, book: CalendarBook): Day | null {
  const days = packet.policy.kind === 'agency' ? undefined : packet.policy.silenceDays;
  if (days === undefined) return null;
  const client = getDoer(book, clientKey(packet.clientId));
  const from = addWorkingDays(client.calendar, dayIn(packet.sentAt, client.zone), days + 1);
  return from.ok ? from.value : null; // a client without working days is never silent long enough
}

/** Records that no answer came in the agreed time: it counts as approval of every piece that still waits. */
export function recordNoAnswer(app: App, viewer: Viewer, packetId: string): Promise<Result<null, SilenceFailure>> {
  return app.write<null, SilenceFailure>(async (tx, now) => {
    const packet = await tx.findOneOrFail(Packet, { where: { id: packetId }, lock: { mode: 'pessimistic_write' } });
    const book = await loadCalendars(tx, now);
    const from = silenceFrom(packet, book);
    if (from === null || packet.policy.kind === 'agency') return fail({ code: 'packet.silence_not_agreed' });
    if (getDoer(book, clientKey(packet.clientId)).todayOn < from) return fail({ code: 'packet.silence_too_soon' });
    const items = await tx.find(PacketItem, { where: { packetId }, order: { pieceId: 'ASC' } });
    const waiting = items.filter((item) => item.outcome === null);
    if (waiting.length === 0) return fail({ code: 'decision.closed' });
    const how = `no answer after ${packet.policy.silenceDays ?? 0} working days`;
    for (const item of waiting) {
      const piece = await lockPiece(tx, item.pieceId);
      const version = await tx.findOneByOrFail(Version, { id: item.versionId });
      const digests = allDigests(version.digests);
      const onBehalf = { personId: viewer.personId, name: viewer.name, how };
      await appendDecision(
        tx,
        {
          clientId: packet.clientId,
          packetId,
          pieceId: piece.id,
          versionId: item.versionId,
          round: item.round,
          contactId: null,
          verdict: 'approve',
          digests,
          remark: '',
          onBehalf,
        },
        now,
      );
      await close(app, tx, { packet, item, piece, digests, actor: `${viewer.name} (${how})`, remark: '' }, now);
    }
    return ok(null);
  });
}
