import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Patch, Post, Put, Query, Res } from '@nestjs/common';
import {
  ArchiveBody,
  ChangeFormLinkBody,
  FORM_DOCUMENT_SCHEMA,
  FormClientsBody,
  FormLinkBody,
  NewFormBody,
  NewFormLinkBody,
  SaveFormBody,
  type FormLinkMadeShape,
  type FormMadeShape,
  type FormPage,
  type FormShape,
  type FormVersionShape,
  type TriedRequestShape,
} from '@zesting/contract';
import { documentOf, FORM_STOCK, type FormDocument, type Result } from '@zesting/core';
import type { Response } from 'express';
import { toString } from 'qrcode';
import sharp from 'sharp';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { namesFor } from './queries/form-names.js';
import { formatNeeds, formInReach, formPage, formVersion, formWhole, triedRequests } from './queries/forms.js';
import { archiveForm, discardDraft, makeForm, publishForm, putFormClients, saveForm, type FormFailure } from './use-cases/edit-form.js';
import { changeFormLink, editLink, makeLink } from './use-cases/form-links.js';

const fileName = (words: string): string => words.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 80);
/** Large enough for a poster. */
const QR_PX = 1024;

/** The value of a result; what is wrong with a form goes with the problem. */
function valueOrFaults<T>(result: Result<T, FormFailure>): T {
  if (!result.ok && (result.failure.code === 'form.faulty' || result.failure.code === 'form.malformed'))
    throw Problem.of(result.failure.code, { faults: result.failure.faults });
  return valueOrProblem(result);
}

/** Forms: what clients are asked, and the links by which. */
@Controller('forms')
export class FormsController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('form.read')
  async list(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('cursor') cursor?: string,
    @Query('archived') archived?: string,
  ): Promise<FormPage> {
    const page = await formPage(this.app, viewer, { clientId, cursor, archived: archived === 'yes' });
    return { ...page, stock: FORM_STOCK.map(({ name }) => name), formats: await formatNeeds(this.app) };
  }

  @Post()
  @Access('form.edit')
  async make(@CurrentViewer() viewer: Viewer, @Body() body: NewFormBody): Promise<FormMadeShape> {
    this.refuseOthers(viewer, body.clientIds);
    if (body.copyOf !== undefined) await formInReach(this.app, viewer, body.copyOf);
    return valueOrFaults(await makeForm(this.app, viewer, body));
  }

  @Get(':formId')
  @Access('form.read', { form: 'formId' })
  show(@CurrentViewer() viewer: Viewer, @Param('formId') formId: string): Promise<FormShape> {
    return formWhole(this.app, viewer, formId);
  }

  /** Keeps what is being changed. Needs If-Match with its version; a conflict answers with both states. */
  @Patch(':formId')
  @Access('form.edit', { form: 'formId' })
  async save(
    @CurrentViewer() viewer: Viewer,
    @Param('formId') formId: string,
    @Body() { content }: SaveFormBody,
    @IfMatch() version: number,
  ): Promise<FormShape> {
    await formInReach(this.app, viewer, formId, true);
    const result = await saveForm(this.app, viewer, formId, content, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: { content }, theirs: await formWhole(this.app, viewer, formId) });
    valueOrFaults(result);
    return formWhole(this.app, viewer, formId);
  }

  @Post(':formId/publish')
  @HttpCode(200)
  @Access('form.edit', { form: 'formId' })
  async publish(@CurrentViewer() viewer: Viewer, @Param('formId') formId: string, @IfMatch() version: number): Promise<FormShape> {
    await formInReach(this.app, viewer, formId, true);
    valueOrFaults(await publishForm(this.app, viewer, formId, version));
    return formWhole(this.app, viewer, formId);
  }

  /** Goes back to what is asked. */
  @Post(':formId/discard')
  @HttpCode(200)
  @Access('form.edit', { form: 'formId' })
  async discard(@CurrentViewer() viewer: Viewer, @Param('formId') formId: string, @IfMatch() version: number): Promise<FormShape> {
    await formInReach(this.app, viewer, formId, true);
    valueOrFaults(await discardDraft(this.app, viewer, formId, version));
    return formWhole(this.app, viewer, formId);
  }

  @Put(':formId/clients')
  @HttpCode(204)
  @Access('form.edit', { form: 'formId' })
  async clients(@CurrentViewer() viewer: Viewer, @Param('formId') formId: string, @Body() { clientIds }: FormClientsBody): Promise<void> {
    await formInReach(this.app, viewer, formId, true);
    this.refuseOthers(viewer, clientIds);
    valueOrFaults(await putFormClients(this.app, viewer, formId, clientIds));
  }

  @Post(':formId/archive')
  @HttpCode(204)
  @Access('form.edit', { form: 'formId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('formId') formId: string, @Body() { archived }: ArchiveBody): Promise<void> {
    await formInReach(this.app, viewer, formId, true);
    valueOrFaults(await archiveForm(this.app, viewer, formId, archived));
  }

  /** The form as a file: see `/api/schemas/form.json`. */
  @Get(':formId/document')
  @Access('form.read', { form: 'formId' })
  async document(
    @CurrentViewer() viewer: Viewer,
    @Param('formId') formId: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<FormDocument> {
    const form = await formInReach(this.app, viewer, formId);
    response.attachment(`${fileName(form.content.title)}.json`);
    return documentOf(form.content, await namesFor(this.app.manager, form.client_ids));
  }

  @Get(':formId/versions/:number')
  @Access('form.read', { form: 'formId' })
  async version(
    @CurrentViewer() viewer: Viewer,
    @Param('formId') formId: string,
    @Param('number', ParseIntPipe) number: number,
  ): Promise<FormVersionShape> {
    await formInReach(this.app, viewer, formId);
    const version = await formVersion(this.app, formId, number);
    if (!version) throw Problem.of('access.not_found');
    return version;
  }

  /** The newest requests that came by the form, to try its rules on. */
  @Get(':formId/tried')
  @Access('form.edit', { form: 'formId' })
  async tried(@CurrentViewer() viewer: Viewer, @Param('formId') formId: string): Promise<TriedRequestShape[]> {
    await formInReach(this.app, viewer, formId);
    return triedRequests(this.app, viewer, formId);
  }

  @Post(':formId/links')
  @Access('form.edit', { form: 'formId' })
  async makeLink(
    @CurrentViewer() viewer: Viewer,
    @Param('formId') formId: string,
    @Body() body: NewFormLinkBody,
  ): Promise<FormLinkMadeShape> {
    await formInReach(this.app, viewer, formId);
    this.refuseOthers(viewer, [body.clientId]);
    return { linkId: valueOrProblem(await makeLink(this.app, viewer, formId, body)) };
  }

  @Patch(':formId/links/:linkId')
  @HttpCode(204)
  @Access('form.edit', { form: 'formId', formLink: 'linkId' })
  async editLink(
    @CurrentViewer() viewer: Viewer,
    @Param('formId') formId: string,
    @Param('linkId') linkId: string,
    @Body() body: FormLinkBody,
  ): Promise<void> {
    valueOrProblem(await editLink(this.app, viewer, formId, linkId, body));
  }

  /** Renews or closes a link: what was given out before opens nothing any more. */
  @Post(':formId/links/:linkId/change')
  @HttpCode(204)
  @Access('form.edit', { form: 'formId', formLink: 'linkId' })
  async changeLink(
    @CurrentViewer() viewer: Viewer,
    @Param('formId') formId: string,
    @Param('linkId') linkId: string,
    @Body() body: ChangeFormLinkBody,
  ): Promise<void> {
    valueOrProblem(await changeFormLink(this.app, viewer, formId, linkId, body));
  }

  /** The link as a QR code (ISO/IEC 18004), to be printed; `type` is png or svg. */
  @Get(':formId/links/:linkId/qr')
  @AnswersBytes('image/png', 'image/svg+xml')
  @Access('form.read', { form: 'formId', formLink: 'linkId' })
  async qr(
    @CurrentViewer() viewer: Viewer,
    @Param('formId') formId: string,
    @Param('linkId') linkId: string,
    @Res() response: Response,
    @Query('type') type?: string,
  ): Promise<void> {
    const { links, content } = await formWhole(this.app, viewer, formId);
    const link = links.find(({ id }) => id === linkId);
    if (!link?.address) throw Problem.of('link.unknown');
    response.setHeader('Cache-Control', 'no-store');
    response.attachment(`${fileName(`${content.title} ${link.label}`)}.${type === 'svg' ? 'svg' : 'png'}`);
    const drawn = await toString(link.address, { type: 'svg', margin: 4 });
    if (type === 'svg') response.type('image/svg+xml').send(drawn);
    else response.type('image/png').send(await sharp(Buffer.from(drawn)).resize(QR_PX, QR_PX, { kernel: 'nearest' }).png().toBuffer());
  }

  private refuseOthers(viewer: Viewer, clientIds: readonly string[]): void {
    if (clientIds.some((id) => !viewer.clientIds.includes(id))) throw Problem.of('access.not_found');
  }
}

/** Published shapes of files. */
@Controller('schemas')
export class SchemasController {
  /** JSON Schema 2020-12 of a form as a file. */
  @Get('form.json')
  @Access('schema.read')
  form(): Record<string, unknown> {
    return { ...FORM_DOCUMENT_SCHEMA };
  }
}
