import { Body, Controller, Get, Headers, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  AcceptRequestBody,
  AttachRequestBody,
  DeclineRequestBody,
  KeepIdeaBody,
  MergeRequestBody,
  RequestMessageBody,
  RequestOwnerBody,
  TakeDownBody,
  type AcceptedShape,
  type ActivityPage,
  type AskableFormShape,
  type FeasibilityShape,
  type RequestPage,
  type RequestShape,
  type TakenDownShape,
  type VerdictShape,
} from '@zesting/contract';
import { STANDS } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { activityPage } from '../../platform/activity.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { UPLOAD_COLUMNS } from '../production/index.js';
import { feasibilityOf } from '../planning/index.js';
import { askableForms } from './queries/asked-form.js';
import { REQUEST_ROW as ROW, requestPage } from './queries/request-page.js';
import { verdictOf } from './queries/verdict.js';
import { askBack } from './use-cases/ask-back.js';
import { acceptRequest, declineRequest, keepAsIdea, markRead, reopenRequest } from './use-cases/decide-request.js';
import { attachRequest, mergeRequest, setOwner } from './use-cases/join-requests.js';
import { takeDown } from './use-cases/take-down.js';

@Controller('requests')
export class RequestsController {
  constructor(private readonly app: App) {}

  /** Requests, those not decided first and unread first among them, newest first; by form, by owner, and those still open alone. */
  @Get()
  @Access('request.list')
  list(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('cursor') cursor?: string,
    @Query('formId') formId?: string,
    @Query('ownerId') ownerId?: string,
    @Query('shown') shown?: string,
    @Query('order') order?: string,
    @Query('stands') stands?: string,
  ): Promise<RequestPage> {
    return requestPage(this.app, viewer, {
      clientId,
      cursor,
      formId,
      ownerId,
      shown: shown === 'open' || shown === 'ideas' ? shown : 'all',
      byDanger: order === 'danger',
      stands: STANDS.find((word) => word === stands),
    });
  }

  /** Takes down on a form what somebody asks for by telephone. Needs an Idempotency-Key: a repeat makes no second request. */
  @Post('taken-down/:clientId')
  @Access('request.take_down', { client: 'clientId' })
  async takeDown(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: TakeDownBody,
    @Headers('idempotency-key') key?: string,
  ): Promise<TakenDownShape> {
    if (!key || key.length > 100) throw Problem.of('idempotency.key_missing');
    const result = await takeDown(this.app, viewer, clientId, body, key);
    if (!result.ok && result.failure.code === 'request.answers_wrong')
      throw Problem.of('request.answers_wrong', { errors: result.failure.errors });
    return { requestId: valueOrProblem(result) };
  }

  /** The forms by which something can be taken down for a client, with what can be chosen filled in. */
  @Get('taken-down/:clientId')
  @Access('request.take_down', { client: 'clientId' })
  askable(@Param('clientId') clientId: string): Promise<AskableFormShape[]> {
    return askableForms(this.app, clientId);
  }

  @Get(':requestId')
  @Access('request.read', { request: 'requestId' })
  async show(@Param('requestId') requestId: string): Promise<RequestShape> {
    const [row] = await this.app.read<Omit<RequestShape, 'files'>>(
      `select ${ROW}, r.requester_email as "requesterEmail", v.content ->> 'title' as "formTitle", r.items, r.answers, r.decline_reason as "declineReason",
         r.version,
         (select jsonb_build_object('id', m.id, 'number', m.number, 'title', m.title) from requests m where m.id = r.merged_into) as "mergedInto",
         coalesce((select jsonb_agg(jsonb_build_object('id', t.id, 'author', t.author, 'name', t.name, 'text', t.text, 'at', t.at) order by t.at, t.id)
           from request_messages t where t.request_id = r.id), '[]') as messages,
         coalesce((select jsonb_agg(jsonb_build_object('id', p.id, 'number', p.number, 'title', p.title, 'stage', p.stage, 'isMade', b.made) order by p.number)
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
    return valueOrProblem(await feasibilityOf(this.app, request.client_id, routeId));
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
    return { pieceIds: valueOrProblem(await acceptRequest(this.app, viewer, requestId, body)) };
  }

  @Post(':requestId/decline')
  @HttpCode(204)
  @Access('request.decide', { request: 'requestId' })
  async decline(@CurrentViewer() viewer: Viewer, @Param('requestId') requestId: string, @Body() body: DeclineRequestBody): Promise<void> {
    valueOrProblem(await declineRequest(this.app, viewer, requestId, body.reason));
  }

  /** Keeps it on the idea list, for later. */
  @Post(':requestId/idea')
  @HttpCode(204)
  @Access('request.decide', { request: 'requestId' })
  async idea(@CurrentViewer() viewer: Viewer, @Param('requestId') requestId: string, @Body() { note }: KeepIdeaBody): Promise<void> {
    valueOrProblem(await keepAsIdea(this.app, viewer, requestId, note.trim()));
  }

  /** The request judged with figures, by the route that its rules say or another. */
  @Get(':requestId/verdict')
  @Access('request.read', { request: 'requestId' })
  async verdict(@Param('requestId') requestId: string, @Query('routeId') routeId?: string): Promise<VerdictShape> {
    return valueOrProblem(await verdictOf(this.app, requestId, routeId ?? null));
  }

  /** Asks the requester something, by mail and on their page. */
  @Post(':requestId/ask-back')
  @HttpCode(204)
  @Access('request.decide', { request: 'requestId' })
  async askBack(
    @CurrentViewer() viewer: Viewer,
    @Param('requestId') requestId: string,
    @Body() { text }: RequestMessageBody,
  ): Promise<void> {
    valueOrProblem(await askBack(this.app, viewer, requestId, text.trim()));
  }

  @Post(':requestId/merge')
  @HttpCode(204)
  @Access('request.decide', { request: 'requestId' })
  async merge(@CurrentViewer() viewer: Viewer, @Param('requestId') requestId: string, @Body() { intoId }: MergeRequestBody): Promise<void> {
    valueOrProblem(await mergeRequest(this.app, viewer, requestId, intoId));
  }

  /** Accepts it by putting it to a piece that is there already. */
  @Post(':requestId/attach')
  @HttpCode(204)
  @Access('request.decide', { request: 'requestId' })
  async attach(
    @CurrentViewer() viewer: Viewer,
    @Param('requestId') requestId: string,
    @Body() { pieceId }: AttachRequestBody,
  ): Promise<void> {
    valueOrProblem(await attachRequest(this.app, viewer, requestId, pieceId));
  }

  @Put(':requestId/owner')
  @HttpCode(204)
  @Access('request.decide', { request: 'requestId' })
  async owner(
    @CurrentViewer() viewer: Viewer,
    @Param('requestId') requestId: string,
    @Body() { ownerId }: RequestOwnerBody,
  ): Promise<void> {
    valueOrProblem(await setOwner(this.app, viewer, requestId, ownerId));
  }
}
