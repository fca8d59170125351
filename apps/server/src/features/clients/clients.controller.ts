import { Body, Controller, Get, HttpCode, Param, Patch, Post, Query, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import type { Response } from 'express';
import {
  ArchiveBody,
  ChangeLinkBody,
  EditClientBody,
  NewClientBody,
  type ActivityPage,
  type BrandShape,
  type ClientLinksShape,
  type ClientMadeShape,
  type ClientPageShape,
  type ClientRow,
  type ClientShape,
  type RegionShape,
  type UploadShape,
} from '@zesting/contract';
import { ok } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { activityPage } from '../../platform/activity.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { regions } from '../../platform/time/holidays.js';
import { addAsset, OneFile, sendAsset, uploadOf } from '../production/index.js';
import { brandSheet, clientPage, clientRows } from './queries/client-page.js';
import { changeLink, linksOf, managesOwn } from './use-cases/change-link.js';
import { editClient } from './use-cases/edit-client.js';
import { archiveClient, makeClient } from './use-cases/make-client.js';

@Controller()
export class ClientsController {
  constructor(private readonly app: App) {}

  /** The clients in the viewer's reach, with channels, pillars and contacts. Creators get no contacts. */
  @Get('clients')
  @Access('client.list')
  list(@CurrentViewer() viewer: Viewer): Promise<ClientShape[]> {
    const seesContacts = viewer.role === 'lead' || viewer.role === 'manager';
    return this.app.read<ClientShape>(
      `select c.id, c.code, c.name, c.colour, c.zone, c.usual_time as "usualTime",
         coalesce((select jsonb_agg(jsonb_build_object('id', h.id, 'kind', h.kind, 'name', h.name, 'copyLimit', h.copy_limit, 'ratio', h.ratio) order by h.position)
           from channels h where h.client_id = c.id and h.archived_at is null), '[]') as channels,
         coalesce((select jsonb_agg(jsonb_build_object('id', p.id, 'name', p.name, 'colour', p.colour) order by p.position) from pillars p
           where p.client_id = c.id and p.archived_at is null), '[]') as pillars,
         coalesce((select jsonb_agg(jsonb_build_object('id', x.id, 'name', x.name, 'email', x.email, 'canAsk', x.can_ask, 'canSignOff', x.can_sign_off) order by x.name)
           from contacts x where x.client_id = c.id and x.archived_at is null and $2), '[]') as contacts
       from clients c where c.id = any($1) order by c.name`,
      [viewer.clientIds, seesContacts],
    );
  }

  /** A client's first logo, as those see it who come by its links. */
  @Get('clients/:clientId/mark')
  @AnswersBytes('image/*')
  @Access('client.mark')
  async mark(@Param('clientId') clientId: string, @Res() response: Response): Promise<void> {
    const [logo] = await this.app.read<{ id: string }>(
      `select a.id from clients c join assets a on a.client_id = c.id and a.id::text = c.brand -> 'logos' ->> 0
       where c.id = $1 and c.archived_at is null`,
      [clientId],
    );
    if (!logo) throw Problem.of('access.not_found');
    return sendAsset(this.app, logo.id, response, { width: '480', isBrand: true });
  }

  /** A line per client with what is open, archived ones too for a lead. */
  @Get('clients/rows')
  @Access('client.read')
  rows(@CurrentViewer() viewer: Viewer): Promise<ClientRow[]> {
    return clientRows(this.app, viewer);
  }

  /** The regions whose public holidays are known. */
  @Get('regions')
  @Access('open')
  regions(): RegionShape[] {
    return [...regions()];
  }

  @Post('clients')
  @Access('client.make')
  async make(@CurrentViewer() viewer: Viewer, @Body() body: NewClientBody): Promise<ClientMadeShape> {
    return { clientId: valueOrProblem(await makeClient(this.app, viewer, body)) };
  }

  @Get('clients/:clientId')
  @Access('client.edit', { client: 'clientId' })
  page(@Param('clientId') clientId: string): Promise<ClientPageShape> {
    return clientPage(this.app, clientId);
  }

  /** Changes what is given. Needs If-Match with the client's version; a conflict answers with both states. */
  @Patch('clients/:clientId')
  @Access('client.edit', { client: 'clientId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: EditClientBody,
    @IfMatch() version: number,
  ): Promise<ClientPageShape> {
    const result = await editClient(this.app, viewer, clientId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: body, theirs: await clientPage(this.app, clientId) });
    valueOrProblem(result);
    return clientPage(this.app, clientId);
  }

  @Post('clients/:clientId/archive')
  @HttpCode(204)
  @Access('client.archive', { client: 'clientId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: ArchiveBody): Promise<void> {
    valueOrProblem(await archiveClient(this.app, viewer, clientId, body.archived));
  }

  @Get('clients/:clientId/brand')
  @Access('brand.read', { client: 'clientId' })
  brand(@Param('clientId') clientId: string): Promise<BrandShape> {
    return brandSheet(this.app, clientId);
  }

  /** A logo of the brand sheet. */
  @Get('clients/:clientId/brand/files/:assetId')
  @AnswersBytes('image/*')
  @Access('brand.read', { client: 'clientId' })
  async brandFile(@Param('clientId') clientId: string, @Param('assetId') assetId: string, @Res() response: Response): Promise<void> {
    const { logos } = await brandSheet(this.app, clientId);
    if (!logos.some((logo) => logo.assetId === assetId)) throw Problem.of('access.not_found');
    return sendAsset(this.app, assetId, response, { isBrand: true });
  }

  /** Takes a file of the client's own, such as a logo. */
  @Post('clients/:clientId/files')
  @ApiConsumes('multipart/form-data')
  @Access('client.edit', { client: 'clientId' })
  @UseInterceptors(OneFile())
  async addFile(@Param('clientId') clientId: string, @UploadedFile() file: Express.Multer.File | undefined): Promise<UploadShape> {
    const upload = uploadOf(file);
    const stored = valueOrProblem(await this.app.files.store(upload.bytes));
    return valueOrProblem(
      await this.app.write(async (tx, now) => ok(await addAsset(tx, stored, { clientId, pieceId: null, name: upload.name, now }))),
    );
  }

  /** Everything that was done for this client, newest first. */
  @Get('clients/:clientId/activity')
  @Access('client.edit', { client: 'clientId' })
  activity(@Param('clientId') clientId: string, @Query('before') before?: string): Promise<ActivityPage> {
    return activityPage(this.app, { clientId }, before);
  }

  /** The links to hand out: intake forms and the calendar feed; and whose rooms are open. */
  @Get('clients/:clientId/links')
  @Access('client.links', { client: 'clientId' })
  async links(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string): Promise<ClientLinksShape> {
    if (!(await managesOwn(this.app, viewer, clientId))) throw Problem.of('access.refused');
    return linksOf(this.app, clientId);
  }

  /** Renews or closes a link: those given out before die at once. */
  @Post('clients/:clientId/links')
  @HttpCode(200)
  @Access('client.links', { client: 'clientId' })
  async changeLink(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: ChangeLinkBody,
  ): Promise<ClientLinksShape> {
    if (!(await managesOwn(this.app, viewer, clientId))) throw Problem.of('access.refused');
    valueOrProblem(await changeLink(this.app, viewer, clientId, body));
    return linksOf(this.app, clientId);
  }
}
