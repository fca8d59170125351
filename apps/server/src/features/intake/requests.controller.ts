import { Body, Controller, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import {
  AcceptRequestBody,
  DeclineRequestBody,
  type AcceptedShape,
  type ActivityPage,
  type FeasibilityShape,
  type RequestPage,
  type RequestShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { activityPage } from '../../platform/activity.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { UPLOAD_COLUMNS } from '../production/index.js';
import { feasibilityOf } from '../planning/index.js';
import { acceptRequest, declineRequest, markRead, reopenRequest } from './use-cases/decide-request.js';

const ROW = `r.id, r.number, r.client_id as "clientId", r.title, r.requester_name as "requesterName", r.received_at as "receivedAt", r.wish_on as "wishOn",
  r.state, r.way, r.owner_id as "ownerId", r.read_at is not null as "isRead"`;
const PAGE = 50;

@Controller('requests')
export class RequestsController {
  constructor(private readonly app: App) {}

  /** Requests, those not decided first and unread first among them, newest first. */
  @Get()
  @Access('request.list')
  async list(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('cursor') cursor?: string,
  ): Promise<RequestPage> {
    const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
    const rank = "(r.state = 'new' and r.read_at is null)::int * 2 + (r.state = 'new')::int";
    const after = `($2::uuid is null or (${rank}, r.received_at, r.id) <
      (select (o.state = 'new' and o.read_at is null)::int * 2 + (o.state = 'new')::int, o.received_at, o.id from requests o where o.id = $2))`;
    // those not decided are few; of the others a page is read off an index, however many there are
    const part = (where: string, order: string) =>
      `(select ${ROW}, ${rank} as rank, r.received_at as at from requests r
        where r.client_id = any($1) and ${where} and ${after} order by ${order} limit ${PAGE + 1})`;
    const rows = await this.app.read<RequestPage['items'][number] & { rank: number; at: string }>(
      `select * from (${part("r.state = 'new'", `${rank} desc, r.received_at desc, r.id desc`)}
         union all ${part("r.state <> 'new'", 'r.received_at desc, r.id desc')}) both_parts
       order by rank desc, at desc, id desc limit ${PAGE + 1}`,
      [clientIds, cursor ?? null],
    );
    const items = rows.map(({ rank: _, at: __, ...item }) => item);
    return { items: items.slice(0, PAGE), nextCursor: items.length > PAGE ? (items[PAGE - 1]?.id ?? null) : null };
  }

  @Get(':requestId')
  @Access('request.read', { request: 'requestId' })
  async show(@Param('requestId') requestId: string): Promise<RequestShape> {
    const [row] = await this.app.read<Omit<RequestShape, 'files'>>(
      `select ${ROW}, r.requester_email as "requesterEmail", v.content ->> 'title' as "formTitle", r.items, r.answers, r.decline_reason as "declineReason",
         r.takes, r.version,
         coalesce((select jsonb_agg(jsonb_build_object('id', p.id, 'number', p.number, 'title', p.title, 'stage', p.stage) order by p.number)
           from piece_requests b join pieces p on p.id = b.piece_id where b.request_id = r.id), '[]') as pieces
       from requests r left join form_versions v on v.form_id = r.form_id and v.number = r.form_version where r.id = $1`,
      [requestId],
    );
    if (!row) throw new Error('the request went away');
    const files = await this.app.read<RequestShape['files'][number]>(
      `select ${UPLOAD_COLUMNS} from assets where request_id = $1 order by created_at, id`,
      [requestId],
    );
    return { ...row, files };
  }

  @Post(':requestId/read')
  @HttpCode(204)
  @Access('request.read', { request: 'requestId' })
  async read(@Param('requestId') requestId: string): Promise<void> {
    valueOrProblem(await markRead(this.app, requestId));
  }

  /** What a route would allow: the earliest realistic date and the hours it adds. */
  @Get(':requestId/feasibility/:routeId')
  @Access('request.read', { request: 'requestId' })
  async feasibility(@Param('requestId') requestId: string, @Param('routeId') routeId: string): Promise<FeasibilityShape> {
    const [request] = await this.app.read<{ client_id: string }>('select client_id from requests where id = $1', [requestId]);
    if (!request) throw new Error('the request went away');
    return valueOrProblem(await feasibilityOf(this.app.manager, request.client_id, routeId, this.app.clock.now()));
  }

  /** The record of one request, newest first. */
  @Get(':requestId/activity')
  @Access('request.read', { request: 'requestId' })
  activity(@Param('requestId') requestId: string, @Query('before') before?: string): Promise<ActivityPage> {
    return activityPage(this.app, { thing: 'request', thingId: requestId }, before);
  }

  @Post(':requestId/reopen')
  @HttpCode(204)
  @Access('request.decide', { request: 'requestId' })
  async reopen(@CurrentViewer() viewer: Viewer, @Param('requestId') requestId: string): Promise<void> {
    valueOrProblem(await reopenRequest(this.app, viewer, requestId));
  }

  @Post(':requestId/accept')
  @Access('request.decide', { request: 'requestId' })
  async accept(
    @CurrentViewer() viewer: Viewer,
    @Param('requestId') requestId: string,
    @Body() body: AcceptRequestBody,
  ): Promise<AcceptedShape> {
    return { pieceId: valueOrProblem(await acceptRequest(this.app, viewer, requestId, body)) };
  }

  @Post(':requestId/decline')
  @HttpCode(204)
  @Access('request.decide', { request: 'requestId' })
  async decline(@CurrentViewer() viewer: Viewer, @Param('requestId') requestId: string, @Body() body: DeclineRequestBody): Promise<void> {
    valueOrProblem(await declineRequest(this.app, viewer, requestId, body.reason));
  }
}
