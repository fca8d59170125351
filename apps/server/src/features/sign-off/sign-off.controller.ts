import { Body, Controller, Get, Headers, HttpCode, Param, ParseUUIDPipe, Post, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import {
  ChaseBody,
  RecordDecisionBody,
  RoomDecisionBody,
  SendPacketBody,
  type ChasedShape,
  type ChaseShape,
  type DecidedShape,
  type PacketShape,
  type PacketsShape,
  type ReadyShape,
  type RoomShape,
  type SentPacketShape,
} from '@zesting/contract';
import { Access, CurrentLink, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { sendAsset } from '../production/index.js';
import { packetsOf, readyFor } from './queries/packets.js';
import { isSentTo, picturesSeen, roomOf } from './queries/room.js';
import { signOffRecord } from './queries/sign-off-record.js';
import { recordPdf } from './record-pdf.js';
import { chase, chaseOf } from './use-cases/chase.js';
import { approveForClient, recordNoAnswer } from './use-cases/decide-for-client.js';
import { decide, thingsIn } from './use-cases/decide.js';
import { sendPacket } from './use-cases/send-packet.js';

@Controller()
export class PacketsController {
  constructor(private readonly app: App) {}

  @Get('packets')
  @Access('packet.list')
  list(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<PacketsShape> {
    return packetsOf(this.app, clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId));
  }

  @Get('packets/:packetId')
  @Access('packet.read', { packet: 'packetId' })
  async show(@CurrentViewer() viewer: Viewer, @Param('packetId') packetId: string): Promise<PacketShape> {
    const { open, closed } = await packetsOf(this.app, viewer.clientIds, packetId);
    const packet = [...open, ...closed][0];
    if (!packet) throw Problem.of('access.not_found');
    return packet;
  }

  /** What can go to the client now. */
  /** A contact's room as they see it, to look at only: who opens it this way can decide nothing. */
  @Get('clients/:clientId/rooms/:contactId')
  @Access('client.read', { client: 'clientId' })
  async room(@Param('clientId') clientId: string, @Param('contactId') contactId: string): Promise<RoomShape> {
    const [contact] = await this.app.read('select 1 from contacts where id = $1 and client_id = $2 and archived_at is null', [
      contactId,
      clientId,
    ]);
    if (!contact) throw Problem.of('access.not_found');
    return { ...(await roomOf(this.app, contactId)), canDecide: false };
  }

  @Get('clients/:clientId/ready')
  @Access('packet.send', { client: 'clientId' })
  ready(@Param('clientId') clientId: string): Promise<ReadyShape> {
    return readyFor(this.app, clientId);
  }

  @Post('clients/:clientId/packets')
  @Access('packet.send', { client: 'clientId' })
  async send(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: SendPacketBody): Promise<SentPacketShape> {
    return { packetId: valueOrProblem(await sendPacket(this.app, viewer, clientId, body)) };
  }

  /** Records what a contact said by telephone or across a table. */
  @Post('packets/:packetId/decisions')
  @HttpCode(200)
  @Access('decision.record', { packet: 'packetId' })
  async record(
    @CurrentViewer() viewer: Viewer,
    @Param('packetId') packetId: string,
    @Body() body: RecordDecisionBody,
  ): Promise<DecidedShape> {
    const onBehalf = { personId: viewer.personId, name: viewer.name, how: body.how };
    return valueOrProblem(await decide(this.app, { ...body, things: thingsIn(body.remark), packetId, versionId: null, onBehalf }));
  }

  /** Records that no answer came in the agreed time, which counts as approval. */
  @Post('packets/:packetId/no-answer')
  @HttpCode(204)
  @Access('decision.record', { packet: 'packetId' })
  async noAnswer(@CurrentViewer() viewer: Viewer, @Param('packetId') packetId: string): Promise<void> {
    valueOrProblem(await recordNoAnswer(this.app, viewer, packetId));
  }

  /** Who is to be chased, with the words ready. */
  @Get('packets/:packetId/chase')
  @Access('packet.send', { packet: 'packetId' })
  chaseWords(@CurrentViewer() viewer: Viewer, @Param('packetId') packetId: string): Promise<ChaseShape> {
    return chaseOf(this.app, viewer, packetId);
  }

  @Post('packets/:packetId/chase')
  @HttpCode(200)
  @Access('packet.send', { packet: 'packetId' })
  async chase(@CurrentViewer() viewer: Viewer, @Param('packetId') packetId: string, @Body() body: ChaseBody): Promise<ChasedShape> {
    return { receivers: valueOrProblem(await chase(this.app, viewer, packetId, body.text)) };
  }

  /** The named person approves on the client's standing authority. */
  @Post('pieces/:pieceId/agency-approval')
  @HttpCode(204)
  @Access('decision.record', { piece: 'pieceId' })
  async agencyApproval(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<void> {
    valueOrProblem(await approveForClient(this.app, viewer, pieceId));
  }

  /** All that was decided about a piece, as a signed PDF with the record inside. */
  @Get('pieces/:pieceId/sign-off-record')
  @AnswersBytes('application/pdf')
  @Access('piece.read', { piece: 'pieceId' })
  signOffRecord(@Param('pieceId') pieceId: string, @Res() response: Response): Promise<void> {
    return sendRecord(this.app, pieceId, response);
  }
}

async function sendRecord(app: App, pieceId: string, response: Response): Promise<void> {
  const record = await signOffRecord(app, pieceId);
  if (!record) throw Problem.of('piece.no_record');
  const name = `${record.client.code}-${record.piece.number}-sign-off-record.pdf`;
  response.set({
    'Content-Type': 'application/pdf',
    'Content-Disposition': `attachment; filename="${name}"`,
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'private, no-store',
  });
  response.end(await recordPdf(record, app.config.serverKey));
}

/** The client's room, by a contact's personal link. */
@Controller('room/:linkId')
export class RoomController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('room.read')
  show(@CurrentLink() contactId: string): Promise<RoomShape> {
    return roomOf(this.app, contactId);
  }

  @Get('files/:assetId')
  @AnswersBytes('image/*', 'video/*', 'audio/*', 'application/octet-stream')
  @Access('room.read')
  async file(
    @CurrentLink() contactId: string,
    @Param('assetId') assetId: string,
    @Res() response: Response,
    @Query('width') width?: string,
    @Headers('sec-fetch-dest') destination?: string,
  ): Promise<void> {
    if (!(await isSentTo(this.app, contactId, assetId))) throw Problem.of('access.not_found');
    return sendAsset(this.app, assetId, response, { width, destination });
  }

  /** The sign-off record of a piece that was sent to the contact. */
  @Get('pieces/:pieceId/sign-off-record')
  @AnswersBytes('application/pdf')
  @Access('room.read')
  async record(
    @CurrentLink() contactId: string,
    @Param('pieceId', ParseUUIDPipe) pieceId: string,
    @Res() response: Response,
  ): Promise<void> {
    const sent = await this.app.read(
      'select 1 from packets k join packet_items i on i.packet_id = k.id where i.piece_id = $1 and $2 = any(k.approver_ids) limit 1',
      [pieceId, contactId],
    );
    if (sent.length === 0) throw Problem.of('access.not_found');
    return sendRecord(this.app, pieceId, response);
  }

  @Post('decisions')
  @HttpCode(200)
  @Access('room.decide')
  async decide(@CurrentLink() contactId: string, @Body() body: RoomDecisionBody): Promise<DecidedShape> {
    const [packet] = await this.app.read('select 1 from packets where id = $1 and $2 = any(approver_ids)', [body.packetId, contactId]);
    if (!packet) throw Problem.of('access.not_found');
    if (body.verdict === 'approve' && !(await picturesSeen(this.app, body.versionId))) throw Problem.of('decision.pictures_not_seen');
    return valueOrProblem(await decide(this.app, { ...body, contactId, onBehalf: null }));
  }
}
