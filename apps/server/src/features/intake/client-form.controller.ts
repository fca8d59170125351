import { Controller, HttpCode, Param, Post } from '@nestjs/common';
import type { ClientLinksShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { linksOf, managesOwn } from '../clients/index.js';
import { giveForm } from './use-cases/give-form.js';

/** The form by which a client asks. */
@Controller('clients/:clientId/form')
export class ClientFormController {
  constructor(private readonly app: App) {}

  /** Gives the client the form that the agency begins with. */
  @Post()
  @HttpCode(200)
  @Access('client.links', { client: 'clientId' })
  async give(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string): Promise<ClientLinksShape> {
    if (!(await managesOwn(this.app, viewer, clientId))) throw Problem.of('access.refused');
    valueOrProblem(await this.app.write((tx, now) => giveForm(tx, clientId, viewer.name, now)));
    return linksOf(this.app, clientId);
  }
}
