import { Module } from '@nestjs/common';
import { GuidelinePicturesController } from './guideline-pictures.controller.js';

export { addGuidelinePicture } from './use-cases/pictures.js';

@Module({ controllers: [GuidelinePicturesController] })
export class GuidelinePicturesModule {}
