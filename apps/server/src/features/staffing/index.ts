import { Module } from '@nestjs/common';
import { StaffingController } from './staffing.controller.js';

@Module({ controllers: [StaffingController] })
export class StaffingModule {}
