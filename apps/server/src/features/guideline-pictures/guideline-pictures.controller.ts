import { Controller, Delete, Get, HttpCode, Param, Post, Query, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import type { UploadShape } from '@zesting/contract';
import type { Response } from 'express';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { OneFile, sendAsset, uploadOf } from '../production/index.js';
import { addGuidelinePicture, isPictureOf, removeGuidelinePicture } from './use-cases/pictures.js';

@Controller('guidelines/:guidelineId/pictures')
export class GuidelinePicturesController {
  constructor(private readonly app: App) {}

  @Post()
  @ApiConsumes('multipart/form-data')
  @Access('guideline.write', { guideline: 'guidelineId' })
  @UseInterceptors(OneFile())
  async add(
    @CurrentViewer() viewer: Viewer,
    @Param('guidelineId') guidelineId: string,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<UploadShape> {
    const { name, bytes } = uploadOf(file);
    const stored = valueOrProblem(await this.app.files.store(bytes));
    return valueOrProblem(await addGuidelinePicture(this.app, viewer, guidelineId, { name, stored }));
  }

  @Delete(':assetId')
  @HttpCode(204)
  @Access('guideline.write', { guideline: 'guidelineId' })
  async remove(
    @CurrentViewer() viewer: Viewer,
    @Param('guidelineId') guidelineId: string,
    @Param('assetId') assetId: string,
  ): Promise<void> {
    valueOrProblem(await removeGuidelinePicture(this.app, viewer, guidelineId, assetId));
  }

  /** In the width asked for (the next larger one that is made). */
  @Get(':assetId')
  @AnswersBytes('image/*')
  @Access('guideline.look', { guideline: 'guidelineId' })
  async one(
    @Param('guidelineId') guidelineId: string,
    @Param('assetId') assetId: string,
    @Res() response: Response,
    @Query('width') width?: string,
  ): Promise<void> {
    if (!(await isPictureOf(this.app.manager, guidelineId, assetId))) throw Problem.of('file.unknown');
    return sendAsset(this.app, assetId, response, { width, isBrand: true });
  }
}
