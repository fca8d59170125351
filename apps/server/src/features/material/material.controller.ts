import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import {
  AskMaterialBody,
  BroughtAllBody,
  BroughtBody,
  MaterialBody,
  type AskMaterialShape,
  type MaterialMadeShape,
  type MaterialOfPieceShape,
} from '@zesting/contract';
import { Access, CurrentLink, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { askingFor } from './queries/deliveries.js';
import { materialOf } from './queries/material.js';
import { addMaterial, setMaterialAway } from './use-cases/add-material.js';
import { askForMaterial } from './use-cases/ask-for-material.js';
import { addBrought, broughtAll, takeBroughtBack } from './use-cases/bring-material.js';

@Controller()
export class MaterialController {
  constructor(private readonly app: App) {}

  /** What makers of a piece work from, and what its client was asked to bring. */
  @Get('pieces/:pieceId/material')
  @Access('material.read', { piece: 'pieceId' })
  list(@Param('pieceId') pieceId: string): Promise<MaterialOfPieceShape> {
    return materialOf(this.app, pieceId);
  }

  @Post('pieces/:pieceId/material')
  @Access('material.add', { piece: 'pieceId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: MaterialBody): Promise<MaterialMadeShape> {
    return { materialId: valueOrProblem(await addMaterial(this.app, viewer, pieceId, body)) };
  }

  /** Takes material away; it can be put back. */
  @Delete('material/:materialId')
  @HttpCode(204)
  @Access('material.add', { material: 'materialId' })
  async remove(@CurrentViewer() viewer: Viewer, @Param('materialId') materialId: string): Promise<void> {
    valueOrProblem(await setMaterialAway(this.app, viewer, materialId, true));
  }

  @Post('material/:materialId/restore')
  @HttpCode(204)
  @Access('material.add', { material: 'materialId' })
  async restore(@CurrentViewer() viewer: Viewer, @Param('materialId') materialId: string): Promise<void> {
    valueOrProblem(await setMaterialAway(this.app, viewer, materialId, false));
  }

  /** Whom to ask for what a step waits for, by when, and what else the client could be asked for in the same mail. */
  @Get('steps/:stepId/asking')
  @Access('material.ask', { step: 'stepId' })
  async asking(@Param('stepId') stepId: string): Promise<AskMaterialShape> {
    return valueOrProblem(await askingFor(this.app, stepId));
  }

  /** Asks the client, or asks again: what had been brought before stays. */
  @Post('steps/:stepId/asking')
  @HttpCode(204)
  @Access('material.ask', { step: 'stepId' })
  async ask(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string, @Body() body: AskMaterialBody): Promise<void> {
    valueOrProblem(await askForMaterial(this.app, viewer, stepId, body));
  }

  /** Records that everything has come, by whatever way. */
  @Post('steps/:stepId/brought')
  @HttpCode(204)
  @Access('material.ask', { step: 'stepId' })
  async brought(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string, @Body() body: BroughtAllBody): Promise<void> {
    valueOrProblem(await broughtAll(this.app, { viewer }, stepId, body.words));
  }
}

/** What a contact brings in the client's room. */
@Controller('room/:linkId/deliveries/:deliveryId')
export class RoomMaterialController {
  constructor(private readonly app: App) {}

  /** Keeps one thing that a contact brings; the makers see it at once. */
  @Post('material')
  @Access('material.bring')
  async bring(
    @CurrentLink() contactId: string,
    @Param('deliveryId') stepId: string,
    @Body() body: BroughtBody,
  ): Promise<MaterialMadeShape> {
    return { materialId: valueOrProblem(await addBrought(this.app, contactId, stepId, body)) };
  }

  /** Takes back what was brought by mistake. */
  @Delete('material/:materialId')
  @HttpCode(204)
  @Access('material.bring')
  async takeBack(
    @CurrentLink() contactId: string,
    @Param('deliveryId') stepId: string,
    @Param('materialId') materialId: string,
  ): Promise<void> {
    valueOrProblem(await takeBroughtBack(this.app, contactId, stepId, materialId));
  }

  /** Says that this is all. */
  @Post('done')
  @HttpCode(204)
  @Access('material.bring')
  async done(@CurrentLink() contactId: string, @Param('deliveryId') stepId: string, @Body() body: BroughtAllBody): Promise<void> {
    valueOrProblem(await broughtAll(this.app, { contactId }, stepId, body.words));
  }
}
