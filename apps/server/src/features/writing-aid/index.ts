import { Module } from '@nestjs/common';
import { WritingAidController } from './writing-aid.controller.js';

@Module({ controllers: [WritingAidController] })
export class WritingAidModule {}
